// Crossings of a net by where they lie.
#pragma once

#include <cmath>
#include <unordered_map>
#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Nodes by where they lie, in boxes of one cell.
class NetBoxes {
  public:
    explicit NetBoxes(double size) : size_(size) {}
    void add(const Point& p, std::uint32_t node) { boxes_[box(p, 0, 0, 0)].push_back(node); }
    template <class Visit>
    void around(const Point& p, const Visit& visit) const {
        for (int x = -1; x <= 1; ++x) {
            for (int y = -1; y <= 1; ++y) {
                for (int z = -1; z <= 1; ++z) {
                    const auto found = boxes_.find(box(p, x, y, z));
                    if (found == boxes_.end()) continue;
                    for (const auto node : found->second) visit(node);
                }
            }
        }
    }

  private:
    [[nodiscard]] std::uint64_t box(const Point& p, int x, int y, int z) const {
        const auto one = [&](double v, int d) {
            return static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(v / size_)) + d +
                                              (1 << 20)) &
                   0x1fffff;
        };
        return (one(p.x(), x) << 42) | (one(p.y(), y) << 21) | one(p.z(), z);
    }
    double size_;
    std::unordered_map<std::uint64_t, std::vector<std::uint32_t>> boxes_;
};

}  // namespace jig
