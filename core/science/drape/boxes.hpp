// Crossings of a net by where they lie.
#pragma once

#include <array>
#include <cmath>
#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Nodes by where they lie, in boxes of one cell. An open table of its own, since boxes are looked up 27 at a
/// time, most of them empty.
class NetBoxes {
  public:
    explicit NetBoxes(double size) : size_(size), keys_(1024, kFree), first_(1024) {}
    void add(const Point& p, std::uint32_t node) {
        if (2 * used_ >= keys_.size()) grow();
        const auto at = slot(box(at_of(p), 0, 0, 0));
        if (keys_[at] == kFree) {
            keys_[at] = box(at_of(p), 0, 0, 0);
            first_[at] = kNone;
            ++used_;
        }
        nodes_.push_back({node, first_[at]});
        first_[at] = static_cast<std::uint32_t>(nodes_.size() - 1);
    }
    /// Each node in the box of `p` and in those round it.
    template <class Visit>
    void around(const Point& p, const Visit& visit) const {
        const auto middle = at_of(p);
        for (int x = -1; x <= 1; ++x) {
            for (int y = -1; y <= 1; ++y) {
                for (int z = -1; z <= 1; ++z) {
                    const auto at = slot(box(middle, x, y, z));
                    if (keys_[at] == kFree) continue;
                    for (auto n = first_[at]; n != kNone; n = nodes_[n].next) visit(nodes_[n].node);
                }
            }
        }
    }

  private:
    static constexpr std::uint64_t kFree = ~std::uint64_t{0};
    static constexpr std::uint32_t kNone = 0xffffffffu;
    struct Node {
        std::uint32_t node, next;
    };

    [[nodiscard]] std::array<std::int64_t, 3> at_of(const Point& p) const {
        const auto one = [&](double v) { return static_cast<std::int64_t>(std::floor(v / size_)); };
        return {one(p.x()), one(p.y()), one(p.z())};
    }
    static std::uint64_t box(const std::array<std::int64_t, 3>& at, int x, int y, int z) {
        const auto one = [](std::int64_t v, int d) {
            return static_cast<std::uint64_t>(v + d + (1 << 20)) & 0x1fffff;
        };
        return (one(at[0], x) << 42) | (one(at[1], y) << 21) | one(at[2], z);
    }
    /// Where a box is, or would be put.
    [[nodiscard]] std::size_t slot(std::uint64_t key) const {
        const auto last = keys_.size() - 1;
        auto at = static_cast<std::size_t>((key * 0x9e3779b97f4a7c15u) >> 20) & last;
        while (keys_[at] != key && keys_[at] != kFree) at = (at + 1) & last;
        return at;
    }
    void grow() {
        const auto keys = std::move(keys_);
        const auto first = std::move(first_);
        keys_.assign(4 * keys.size(), kFree);
        first_.resize(keys_.size());
        for (std::size_t i = 0; i < keys.size(); ++i) {
            if (keys[i] == kFree) continue;
            const auto at = slot(keys[i]);
            keys_[at] = keys[i];
            first_[at] = first[i];
        }
    }

    double size_;
    std::vector<std::uint64_t> keys_;   ///< a power of two of them, half free at least
    std::vector<std::uint32_t> first_;  ///< by slot, the first of its nodes
    std::vector<Node> nodes_;
    std::size_t used_ = 0;
};

}  // namespace jig
