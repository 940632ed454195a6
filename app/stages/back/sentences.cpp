#include "app/stages/sentences.hpp"

namespace jig::app {
namespace {

Sentence joint_sentence(const Job& job, const Shop& shop) {
    const auto bond = job.back.joint.bond;
    Sentence out{"It is bonded",
                 enum_word<Bond>("/back/joint/bond", "bond"),
                 ":",
                 bond == Bond::hard ? shop_word("/back/joint/paste", "paste under the back", shop.bonds)
                                    : shop_word("/back/joint/strip", "strip under the back", shop.bonds),
                 "of",
                 quantity_word("/back/joint/gap", "gap to the shell", Kind::thickness, 0, 0.02)};
    if (bond == Bond::soft)
        out.insert(out.end(),
                   {", tabs of", quantity_word("/back/joint/plies", "plies of a tab", Kind::count, 1, 8),
                    "plies of", shop_word("/back/joint/cloth", "cloth of a tab", shop.reinforcements),
                    "reaching", quantity_word("/back/joint/tab", "tab", Kind::length, 0.01, 0.15)});
    out.insert(out.end(),
               {"; the shell is",
                flag_word("/back/shell_cured", "state of the shell", "cured by then", "still green"), "."});
    return out;
}

}  // namespace

std::vector<Sentence> back_sentences(const Job& job, const Shop& shop) {
    const auto& c = job.back;
    std::vector<Sentence> out;
    Sentence first{"Hold the shell with", enum_word<BackKind>("/back/kind", "back")};
    switch (c.kind) {
        case BackKind::none:
            first.emplace_back(".");
            break;
        case BackKind::egg_crate:
            first.insert(first.end(), {"of", shop_word("/back/board", "rib board", shop.boards)});
            break;
        case BackKind::foam_blocks:
            first.insert(
                first.end(),
                {", of", shop_word("/back/foam/board", "foam of the back", shop.boards),
                 quantity_word("/back/foam/wide", "width of a block", Kind::length, 0.02, 0.2), "wide in",
                 quantity_word("/back/foam/plies", "plies round foam", Kind::count, 1, 8), "plies of",
                 shop_word("/back/foam/cloth", "cloth round foam", shop.reinforcements)});
            break;
        case BackKind::tubes:
        case BackKind::frame:
            first.insert(first.end(),
                         {"of", enum_word<Metal>("/back/tubes/metal", "metal"),
                          quantity_word("/back/tubes/size", "size of a tube", Kind::length, 0.01, 0.1),
                          "across, its wall",
                          quantity_word("/back/tubes/wall", "wall of a tube", Kind::thickness, 0.001, 0.01)});
            break;
        case BackKind::sandwich:
            first.insert(
                first.end(),
                {":", shop_word("/back/sandwich/core", "core of the back", shop.cores), "and",
                 quantity_word("/back/sandwich/plies", "plies of the inner skin", Kind::count, 1, 10),
                 "plies of",
                 shop_word("/back/sandwich/cloth", "cloth of the inner skin", shop.reinforcements), "."});
            break;
    }
    if (c.has_grid())
        first.insert(first.end(),
                     {", at most", quantity_word("/back/pitch", "rib pitch", Kind::length, 0.05, 1),
                      "apart, standing", quantity_word("/back/height", "rib height", Kind::length, 0.02, 0.5),
                      c.kind == BackKind::foam_blocks ? "high over the shell." : "past its highest place."});
    out.push_back(std::move(first));
    if (job.split.way != SplitWay::one)
        out.push_back({"Backed, drawn and tried out is", piece_word(job),
                       ", by itself: the others are bolted to it in use and hold it stiffer."});
    if (c.has_grid())
        out.push_back({"Ribs run",
                       flag_word("/back/across", "ribs across", "across the length", "not across the length"),
                       "and", flag_word("/back/along", "ribs along", "along it", "not along it"), "."});
    if (c.has_grid()) {
        out.push_back(joint_sentence(job, shop));
        if (c.kind == BackKind::egg_crate)
            out.push_back({"Slots are",
                           quantity_word("/back/clearance", "clearance of slots", Kind::thickness, 0, 0.002),
                           "wider than the board; between feet the ribs are",
                           quantity_word("/back/feet/relief", "relief between feet", Kind::length, 0, 0.05),
                           "shorter."});
    }
    Sentence feet{"It stands on",
                  quantity_word("/back/feet/along", "feet along", Kind::count, 2, 6),
                  "×",
                  quantity_word("/back/feet/across", "feet across", Kind::count, 2, 6),
                  "feet,",
                  quantity_word("/back/feet/inset", "inset of the feet", Kind::ratio, 0, 0.45),
                  "in from its ends"};
    if (c.kind == BackKind::frame)
        feet.insert(feet.end(),
                    {", which level over",
                     quantity_word("/back/tubes/travel", "travel of the feet", Kind::length, 0, 0.1), "."});
    else
        feet.emplace_back(".");
    out.push_back(std::move(feet));
    out.push_back(
        {"Between ribs the skin may sag",
         quantity_word("/back/limit", "sag allowed", Kind::thickness, 0.0001, 0.005), "under a hand of",
         quantity_word("/back/person", "force of a hand", Kind::force, 0, 1000, "200 to 300 N"),
         "; a person of", quantity_word("/back/lean", "leaning force", Kind::force, 0, 2000),
         "may bend the rim",
         quantity_word("/back/rim_limit", "give of the rim", Kind::thickness, 0.0002, 0.02),
         "; a wedge lifts with", quantity_word("/back/lever", "levering force", Kind::force, 0, 3000), "."});
    out.push_back({"Parts are bagged with", enum_word<BagKind>("/back/bag", "bag"), "at",
                   quantity_word("/back/vacuum", "vacuum", Kind::pressure, 0, 101325), "below the room."});
    return out;
}

}  // namespace jig::app
