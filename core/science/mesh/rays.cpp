#include "core/science/mesh/rays.hpp"

#include <embree3/rtcore.h>

#include <array>
#include <cassert>
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

unsigned RayMesh::blocked(const Point* from, std::size_t count, const Point& along) const {
    constexpr std::size_t kWide = 8;
    assert(count <= kWide);
    alignas(32) RTCRay8 rays;
    alignas(32) std::array<int, kWide> valid{};
    for (std::size_t i = 0; i < kWide; ++i) {
        // Lanes that are not asked for hold something finite.
        const Point at = from[i < count ? i : 0] - inside_->origin;
        valid[i] = i < count ? -1 : 0;
        rays.org_x[i] = static_cast<float>(at.x());
        rays.org_y[i] = static_cast<float>(at.y());
        rays.org_z[i] = static_cast<float>(at.z());
        rays.dir_x[i] = static_cast<float>(along.x());
        rays.dir_y[i] = static_cast<float>(along.y());
        rays.dir_z[i] = static_cast<float>(along.z());
        rays.tnear[i] = 0;
        rays.tfar[i] = std::numeric_limits<float>::infinity();
        rays.mask[i] = 0xffffffffu;
        rays.flags[i] = 0;
        rays.time[i] = 0;
    }
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    context.flags = RTC_INTERSECT_CONTEXT_FLAG_COHERENT;
    rtcOccluded8(valid.data(), inside_->scene, &context, &rays);
    unsigned out = 0;
    for (std::size_t i = 0; i < count; ++i) out |= rays.tfar[i] < 0 ? 1U << i : 0U;
    return out;
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
