#include "core/science/mesh/rays.hpp"

#include <embree3/rtcore.h>

#include <limits>

namespace jig {

struct RayMesh::Inside {
    RTCDevice device = nullptr;
    RTCScene scene = nullptr;
    Point origin =
        Point::Zero();  ///< Embree works in floats: rays and mesh are taken from the shape's middle
    Inside() = default;
    Inside(const Inside&) = delete;
    Inside& operator=(const Inside&) = delete;
    ~Inside() {
        rtcReleaseScene(scene);
        rtcReleaseDevice(device);
    }
};

namespace {

template <class Ray>
void aim(Ray& ray, const Point& from, const Point& along) {
    ray.org_x = static_cast<float>(from.x());
    ray.org_y = static_cast<float>(from.y());
    ray.org_z = static_cast<float>(from.z());
    ray.dir_x = static_cast<float>(along.x());
    ray.dir_y = static_cast<float>(along.y());
    ray.dir_z = static_cast<float>(along.z());
    ray.tnear = 0;
    ray.tfar = std::numeric_limits<float>::infinity();
    ray.mask = 0xffffffffu;
    ray.flags = 0;
    ray.time = 0;
}

}  // namespace

RayMesh::RayMesh(const TriangleMesh& mesh) : inside_(std::make_unique<Inside>()) {
    const auto box = bounds_of(mesh);
    inside_->origin = (box.low + box.high) / 2;
    inside_->device = rtcNewDevice(nullptr);
    inside_->scene = rtcNewScene(inside_->device);
    rtcSetSceneFlags(inside_->scene, RTC_SCENE_FLAG_ROBUST);
    const auto geometry = rtcNewGeometry(inside_->device, RTC_GEOMETRY_TYPE_TRIANGLE);
    auto* points = static_cast<float*>(rtcSetNewGeometryBuffer(
        geometry, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, 3 * sizeof(float), mesh.points.size()));
    for (const auto& p : mesh.points) {
        for (int i = 0; i < 3; ++i) *points++ = static_cast<float>(p[i] - inside_->origin[i]);
    }
    auto* corners = static_cast<std::uint32_t*>(
        rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3,
                                3 * sizeof(std::uint32_t), mesh.triangles.size()));
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) *corners++ = i;
    }
    rtcCommitGeometry(geometry);
    rtcAttachGeometry(inside_->scene, geometry);
    rtcReleaseGeometry(geometry);
    rtcCommitScene(inside_->scene);
}

RayMesh::~RayMesh() = default;
RayMesh::RayMesh(RayMesh&&) noexcept = default;
RayMesh& RayMesh::operator=(RayMesh&&) noexcept = default;

bool RayMesh::blocked(const Point& from, const Point& along) const {
    RTCRay ray;
    aim(ray, from - inside_->origin, along);
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    rtcOccluded1(inside_->scene, &context, &ray);
    return ray.tfar < 0;
}

std::optional<RayMesh::Hit> RayMesh::first(const Point& from, const Point& along) const {
    RTCRayHit query;
    aim(query.ray, from - inside_->origin, along);
    query.hit.geomID = RTC_INVALID_GEOMETRY_ID;
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    rtcIntersect1(inside_->scene, &context, &query);
    if (query.hit.geomID == RTC_INVALID_GEOMETRY_ID) return std::nullopt;
    return Hit{static_cast<double>(query.ray.tfar), query.hit.primID};
}

}  // namespace jig
