// A place of the part where a bolt goes.
#pragma once

#include "core/base/fields.hpp"
#include "core/stages/part/zone.hpp"

namespace jig {

enum class InsertKind { potted, block };
template <>
struct Words<InsertKind> {
    static constexpr std::array all{Word{"potted", "potted in the core"},
                                    Word{"block", "a block in the core's place"}};
};

namespace part {

struct Insert {
    std::string name = "insert";
    double along = 0, across = 0;  ///< m from the middle of the face, seen along the pull
    int piece = 0;                 ///< of the mould, as `lies_on` has it
    InsertKind kind = InsertKind::potted;
    std::string block = "PU board 700, 50 mm";  ///< of the boards, what a block is cut from
    double bolt = 0.006;                        ///< m of its bolt
    double size = 0.03;                         ///< m across the potting or the block
    double pull = 0;                            ///< N off or onto the face
    double push = 0;                            ///< N along the face
    static void fields(auto& c, auto&& v) {
        v("name", c.name);
        v("along", c.along, -50.0, 50.0);
        v("across", c.across, -50.0, 50.0);
        v("piece", c.piece, 0, kMostPieces);
        v("kind", c.kind);
        v("block", c.block);
        v("bolt", c.bolt, 0.002, 0.05);
        v("size", c.size, 0.004, 1.0);
        v("pull", c.pull, 0.0, 1e6);
        v("push", c.push, 0.0, 1e6);
    }
    bool operator==(const Insert&) const = default;
};

/// More than this is a pattern of holes, not hard points.
inline constexpr std::size_t kMostInserts = 60;

}  // namespace part
}  // namespace jig
