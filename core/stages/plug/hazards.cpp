#include "core/stages/plug/hazards.hpp"

#include <algorithm>

namespace jig::plug {
namespace {

std::vector<std::string> of(Route route) {
    switch (route) {
        case Route::block:
            return {
                "Router and board dust: extraction at the cutter and a fitted respirator; MDF and "
                "polyurethane dust "
                "above all.",
                "A cutter throws what is not held: fixture it, stand aside, doors shut."};
        case Route::slabs:
            return {"Hot wire: fumes of polystyrene and polyurethane outdoors or under extraction only.",
                    "Foam and board dust: extraction and a fitted respirator."};
        case Route::skeleton:
            return {"Saw and router dust of plywood: extraction; blades guarded.",
                    "Two-part foams give off isocyanates and heat: supplied air, thin pours."};
        case Route::foam:
            return {"Rasping foam: extraction, a fitted respirator; polyurethane dust sensitises.",
                    "Epoxy over foam sensitises: gloves and sleeves, never solvent on skin."};
        case Route::tiles:
            return {
                "Printing gives off fumes and fine dust: an enclosed printer, air drawn off; do not leave it "
                "unwatched for days without a smoke alarm.",
                "Support edges are sharp; sand under extraction."};
        case Route::existing:
            return {"Old paint may hold lead or chromate: test before it is sanded."};
        case Route::splash:
            return {"Plaster sets hot and dries skin: gloves; never a hand left in it.",
                    "Wet splashes are heavy: plan how it is turned before it is laid."};
        case Route::direct:
            return {
                "Chips and board dust: extraction at the cutter, eyes and lungs guarded; a dull cutter in "
                "metal "
                "burns and throws.",
                "A cutter throws what is not held: fixture it, stand aside, doors shut.",
                "A block of metal crushes hands and feet: a hoist and slings with a proven load, never a bar "
                "under it."};
    }
    return {};
}

}  // namespace

std::vector<std::string> hazards(const Choices& c) {
    std::vector<Route> routes{c.route};
    if (c.by_piece) routes.insert(routes.end(), c.piece_routes.begin(), c.piece_routes.end());
    std::vector<std::string> out;
    const auto add = [&](std::vector<std::string> more) {
        for (auto& s : more) {
            if (std::find(out.begin(), out.end(), s) == out.end()) out.push_back(std::move(s));
        }
    };
    for (const auto route : routes) add(of(route));
    add(
        {"Isocyanates in paints and foams sensitise for life: supplied air, or leave them to a sprayer who "
         "has it.",
         "Lift and turn heavy plugs with enough hands or a hoist, never over a person."});
    return out;
}

}  // namespace jig::plug
