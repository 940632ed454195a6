#include "app/stand/coarsen.hpp"

#include <algorithm>
#include <array>
#include <cstdint>
#include <unordered_map>
#include <unordered_set>

namespace jig::app {
namespace {

struct Cell {
    double x = 0, y = 0, z = 0;
    int count = 0;
};

}  // namespace

std::vector<Corner> coarsened(const std::vector<Corner>& corners, int cells) {
    if (corners.empty()) return {};
    Eigen::AlignedBox3d box;
    for (const auto& c : corners) box.extend(Point(c.x, c.y, c.z));
    const Point low = box.min();
    const double pitch = std::max(1e-9, box.sizes().maxCoeff() / cells);
    // Cells are numbered in the order in which they are met, so that three of them pack into one key.
    std::unordered_map<std::uint64_t, std::uint32_t> numbers;
    std::vector<Cell> sums;
    std::vector<std::uint32_t> cell_of(corners.size());
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const auto& c = corners[i];
        const auto step = [&](double v, double from) {
            return static_cast<std::uint64_t>(std::max(0.0, (v - from) / pitch));
        };
        const auto key = step(static_cast<double>(c.x), low.x()) |
                         step(static_cast<double>(c.y), low.y()) << 20U |
                         step(static_cast<double>(c.z), low.z()) << 40U;
        const auto [found, fresh] = numbers.try_emplace(key, static_cast<std::uint32_t>(sums.size()));
        if (fresh) sums.emplace_back();
        cell_of[i] = found->second;
        auto& sum = sums[found->second];
        sum.x += static_cast<double>(c.x);
        sum.y += static_cast<double>(c.y);
        sum.z += static_cast<double>(c.z);
        ++sum.count;
    }
    std::vector<Corner> out;
    std::unordered_set<std::uint64_t> seen;
    for (std::size_t t = 0; t + 2 < corners.size(); t += 3) {
        std::array<std::uint32_t, 3> in{cell_of[t], cell_of[t + 1], cell_of[t + 2]};
        if (in[0] == in[1] || in[1] == in[2] || in[2] == in[0]) continue;
        auto sorted = in;
        std::sort(sorted.begin(), sorted.end());
        const auto key = static_cast<std::uint64_t>(sorted[0]) |
                         static_cast<std::uint64_t>(sorted[1]) << 21U |
                         static_cast<std::uint64_t>(sorted[2]) << 42U;
        if (!seen.insert(key).second) continue;
        for (std::size_t k = 0; k < 3; ++k) {
            auto corner = corners[t + k];
            const auto& sum = sums[in[k]];
            corner.x = static_cast<float>(sum.x / sum.count);
            corner.y = static_cast<float>(sum.y / sum.count);
            corner.z = static_cast<float>(sum.z / sum.count);
            out.push_back(corner);
        }
    }
    return out;
}

}  // namespace jig::app
