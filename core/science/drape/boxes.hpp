// Crossings of a net by where they lie.
#pragma once

#include <array>
#include <cmath>
#include <utility>
#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// A crossing's number by a key: an open table, since keys are asked for by the million, most of them in
/// vain.
class NodeTable {
  public:
    static constexpr std::uint32_t kNone = 0xffffffffu;
    /// kNone where there is none.
    [[nodiscard]] std::uint32_t find(std::uint64_t key) const {
        const auto at = slot(key);
        return keys_[at] == kFree ? kNone : nodes_[at];
    }
    /// The place of a key's number; kNone stands there where it is new.
    std::uint32_t& operator[](std::uint64_t key) {
        if (2 * used_ >= keys_.size()) grow();
        const auto at = slot(key);
        if (keys_[at] == kFree) {
            keys_[at] = key;
            nodes_[at] = kNone;
            ++used_;
        }
        return nodes_[at];
    }

  private:
    static constexpr std::uint64_t kFree = ~std::uint64_t{0};

    /// Where a key is, or would be put.
    [[nodiscard]] std::size_t slot(std::uint64_t key) const {
        const auto last = keys_.size() - 1;
        auto at = static_cast<std::size_t>((key * 0x9e3779b97f4a7c15u) >> 20) & last;
        while (keys_[at] != key && keys_[at] != kFree) at = (at + 1) & last;
        return at;
    }
    void grow() {
        const auto keys = std::exchange(keys_, std::vector<std::uint64_t>(4 * keys_.size(), kFree));
        const auto nodes = std::exchange(nodes_, std::vector<std::uint32_t>(keys_.size()));
        for (std::size_t i = 0; i < keys.size(); ++i) {
            if (keys[i] == kFree) continue;
            const auto at = slot(keys[i]);
            keys_[at] = keys[i];
            nodes_[at] = nodes[i];
        }
    }

    std::vector<std::uint64_t> keys_ = std::vector<std::uint64_t>(1024, kFree);  ///< half free at least
    std::vector<std::uint32_t> nodes_ = std::vector<std::uint32_t>(1024);
    std::size_t used_ = 0;
};

/// Nodes by where they lie, in boxes of one cell.
class NetBoxes {
  public:
    explicit NetBoxes(double size) : size_(size) {}
    void add(const Point& p, std::uint32_t node) {
        auto& first = first_[box(at_of(p), 0, 0, 0)];
        nodes_.push_back({node, first});
        first = static_cast<std::uint32_t>(nodes_.size() - 1);
    }
    /// Each node in the box of `p` and in those round it.
    template <class Visit>
    void around(const Point& p, const Visit& visit) const {
        const auto middle = at_of(p);
        for (int x = -1; x <= 1; ++x) {
            for (int y = -1; y <= 1; ++y) {
                for (int z = -1; z <= 1; ++z) {
                    for (auto n = first_.find(box(middle, x, y, z)); n != NodeTable::kNone;
                         n = nodes_[n].next)
                        visit(nodes_[n].node);
                }
            }
        }
    }

  private:
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

    double size_;
    NodeTable first_;  ///< by box, the first of its nodes
    std::vector<Node> nodes_;
};

}  // namespace jig
