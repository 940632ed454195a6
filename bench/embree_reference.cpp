// Embree without anything of ours round it.
#include <embree3/rtcore.h>

#include <cmath>
#include <limits>

#include "bench/reference.hpp"
#include "core/base/parallel.hpp"

namespace bench {

using namespace jig;

TriangleMesh dome(std::size_t n) {
    const auto rings = static_cast<std::uint32_t>(std::sqrt(static_cast<double>(n) / 8)), around = 4 * rings;
    TriangleMesh m;
    for (std::uint32_t k = 0; k <= rings; ++k) {
        const double a = 1.5 * k / rings;
        for (std::uint32_t i = 0; i < around; ++i) {
            const double t = 6.283185307179586 * i / around,
                         r = 0.5 * std::cos(a) * (1 + 0.02 * std::sin(9 * t));
            m.points.emplace_back(r * std::cos(t), r * std::sin(t), 0.5 * std::sin(a));
        }
    }
    for (std::uint32_t k = 0; k < rings; ++k) {
        for (std::uint32_t i = 0; i < around; ++i) {
            const auto a = k * around + i, b = k * around + (i + 1) % around;
            m.triangles.push_back({a, b, b + around});
            m.triangles.push_back({a, b + around, a + around});
        }
    }
    return m;
}

double bare_embree(const TriangleMesh& mesh, const Point& pull) {
    const auto device = rtcNewDevice(nullptr);
    const auto scene = rtcNewScene(device);
    rtcSetSceneFlags(scene, RTC_SCENE_FLAG_ROBUST);
    const auto geometry = rtcNewGeometry(device, RTC_GEOMETRY_TYPE_TRIANGLE);
    auto* p = static_cast<float*>(rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_VERTEX, 0,
                                                          RTC_FORMAT_FLOAT3, 12, mesh.points.size()));
    for (const auto& q : mesh.points) {
        for (int i = 0; i < 3; ++i) *p++ = static_cast<float>(q[i]);
    }
    auto* t = static_cast<unsigned*>(rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_INDEX, 0,
                                                             RTC_FORMAT_UINT3, 12, mesh.triangles.size()));
    for (const auto& f : mesh.triangles) {
        for (const auto i : f) *t++ = i;
    }
    rtcCommitGeometry(geometry);
    rtcAttachGeometry(scene, geometry);
    rtcReleaseGeometry(geometry);
    rtcCommitScene(scene);
    std::vector<RTCRay> rays(mesh.triangles.size());
    for (std::size_t f = 0; f < rays.size(); ++f) {
        const Point from = mesh.centre(f) + 1e-5 * (mesh.area_vector2(f).normalized() + pull);
        rays[f] = RTCRay{};
        rays[f].org_x = static_cast<float>(from.x());
        rays[f].org_y = static_cast<float>(from.y());
        rays[f].org_z = static_cast<float>(from.z());
        rays[f].dir_x = static_cast<float>(pull.x());
        rays[f].dir_y = static_cast<float>(pull.y());
        rays[f].dir_z = static_cast<float>(pull.z());
        rays[f].mask = 0xffffffffu;
    }
    const double seconds = fastest(5, [&] {
        parallel_shares(rays.size(), 4096, [&](std::size_t a, std::size_t b, unsigned) {
            for (; a < b; ++a) {
                rays[a].tfar = std::numeric_limits<float>::infinity();
                RTCIntersectContext context;
                rtcInitIntersectContext(&context);
                rtcOccluded1(scene, &context, &rays[a]);
            }
        });
    });
    rtcReleaseScene(scene);
    rtcReleaseDevice(device);
    return seconds;
}

}  // namespace bench
