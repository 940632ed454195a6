#include "app/stages/sentences.hpp"

namespace jig::app {
namespace {

using Sentences = std::vector<Sentence>;

void slabs(const Job& job, const Shop& shop, Sentences& out) {
    out.push_back({"Slabs of", shop_word("/plug/board", "plug board", shop.boards), "are cut",
                   enum_word<SlabWay>("/plug/slabs/way", "way of the slabs"), ", their edges",
                   enum_word<SlabFit>("/plug/slabs/fit", "fit of the slabs"), "and",
                   flag_word("/plug/slabs/bevel", "bevel", "tilted with the wall", "square"), "."});
    Sentence middle{"Their middles are", flag_word("/plug/slabs/hollow", "hollow", "cut out", "left solid")};
    if (job.plug.slabs.hollow) {
        middle.emplace_back(", a wall of");
        middle.emplace_back(quantity_word("/plug/slabs/wall", "wall", Kind::length, 0.02, 0.2,
                                          "enough to clamp on and to pin"));
    }
    middle.insert(
        middle.end(),
        {"; pins of", quantity_word("/plug/slabs/pin", "pin", Kind::length, 0.003, 0.02), "line them up."});
    out.push_back(std::move(middle));
    out.push_back({"Sheets keep", quantity_word("/plug/margin", "margin of sheets", Kind::length, 0, 0.05),
                   "free at their edge, a cut takes",
                   quantity_word("/plug/slabs/kerf", "kerf", Kind::thickness, 0, 0.01), ", they",
                   flag_word("/plug/slabs/grain", "grain", "have a grain", "have no grain"),
                   "; for the quick figure nesting leaves",
                   quantity_word("/plug/waste", "waste of sheets", Kind::ratio, 0, 0.8), "of them over."});
}

/// How a block is cut, its choices under `at`.
void cutting(Sentences& out, const std::string& at) {
    out.push_back({"A ball of",
                   quantity_word(at + "/cutter", "radius of the ball", Kind::length, 0.002, 0.02),
                   "radius finishes it, sticking out",
                   quantity_word(at + "/stick_out", "stick-out", Kind::length, 0.03, 0.3), "of a holder of",
                   quantity_word(at + "/holder", "radius of the holder", Kind::length, 0.01, 0.06),
                   "radius, at", quantity_word(at + "/feed", "feed", Kind::speed, 0.005, 0.2), ", every",
                   or_none(quantity_word(at + "/step", "step of the passes", Kind::thickness, 0, 0.01,
                                         "0 takes the cheapest step"),
                           "cheapest step"),
                   "."});
    out.push_back(
        {"Roughing takes",
         quantity_word(at + "/rough_deep", "depth of a roughing pass", Kind::length, 0.002, 0.05), "a pass,",
         quantity_word(at + "/rough_wide", "width of a roughing pass", Kind::length, 0.002, 0.05), "wide."});
}

void block(Sentences& out, const Shop& shop) {
    out.push_back({"The block is glued up from", shop_word("/plug/block/board", "block board", shop.boards),
                   "with", quantity_word("/plug/block/allowance", "allowance", Kind::length, 0, 0.02),
                   "to spare all round."});
    cutting(out, "/plug/block");
}

void skeleton(Sentences& out, const Shop& shop) {
    out.push_back({"Stations of", shop_word("/plug/skeleton/board", "skeleton board", shop.boards),
                   "stand every",
                   quantity_word("/plug/skeleton/pitch", "pitch of stations", Kind::length, 0.05, 0.6), "on",
                   quantity_word("/plug/skeleton/keels", "keels", Kind::count, 1, 4), "keels, their slots",
                   quantity_word("/plug/skeleton/clearance", "clearance of slots", Kind::thickness, 0, 0.001),
                   "wider than the board."});
    out.push_back({"Between and over them goes", shop_word("/plug/skeleton/fill", "fill", shop.boards), ",",
                   quantity_word("/plug/skeleton/skin", "skin", Kind::length, 0, 0.05),
                   "thick outside the stations, faired by battens every",
                   quantity_word("/plug/skeleton/batten", "spacing of battens", Kind::length, 0.05, 0.4),
                   "."});
}

void foam(Sentences& out, const Shop& shop) {
    out.push_back({"The core is", shop_word("/plug/foam/board", "foam core", shop.boards), ", skinned with",
                   quantity_word("/plug/foam/plies", "plies of its skin", Kind::count, 0, 6), "plies of",
                   shop_word("/plug/foam/cloth", "cloth of its skin", shop.reinforcements), "."});
}

/// How tiles are printed, its choices under `at`.
void tiles(Sentences& out, const Shop& shop, const std::string& at) {
    out.push_back({"The printer has room for",
                   quantity_word(at + "/room/0", "room across", Kind::length, 0.1, 1), "×",
                   quantity_word(at + "/room/1", "room along", Kind::length, 0.1, 1), "×",
                   quantity_word(at + "/room/2", "room upwards", Kind::length, 0.1, 1), "and lays down",
                   quantity_word(at + "/rate", "what it lays down", Kind::output, 1e-6, 1e-4), ";",
                   quantity_word(at + "/printers", "printers", Kind::count, 1, 10), "of them work at once."});
    out.push_back({"Tiles of", shop_word(at + "/filament", "filament", shop.filaments), "have walls of",
                   quantity_word(at + "/wall", "wall of tiles", Kind::thickness, 0.0008, 0.01), "and",
                   quantity_word(at + "/infill", "infill", Kind::ratio, 0, 1), "of filling, keyed by pegs of",
                   quantity_word(at + "/key", "radius of pegs", Kind::thickness, 0, 0.01), "radius."});
}

void direct(const Job& job, Sentences& out, const Shop& shop) {
    const bool milled = job.plug.direct.way == MouldWay::milled;
    const auto way = enum_word<MouldWay>("/plug/direct/way", "way of making the mould");
    if (milled)
        out.push_back({"It is", way, "from",
                       shop_word("/plug/direct/mill/board", "block of the mould", shop.boards), "with",
                       quantity_word("/plug/direct/mill/allowance", "allowance", Kind::length, 0, 0.02),
                       "to spare all round."});
    else
        out.push_back({"It is", way, "."});
    out.push_back({"Its foot lies",
                   quantity_word("/plug/direct/wall", "wall under the deepest place", Kind::length, 0.005,
                                 0.15, "what is left behind the face where it is thinnest"),
                   "under the deepest place of its face; Edge draws the flange that lies round it."});
    if (milled)
        cutting(out, "/plug/direct/mill");
    else
        tiles(out, shop, "/plug/direct/print");
    const auto* stock = milled ? find(shop.boards, job.plug.direct.mill.board) : nullptr;
    if (stock != nullptr && stock->is_metal())
        out.emplace_back(1, QString("Metal is stoned and polished as it is: no sealer, filler or paint."));
    else
        out.push_back({"Filler and sealer build up",
                       quantity_word("/plug/build_up", "build-up", Kind::thickness, 0, 0.003),
                       ": it is cut deeper by that."});
    out.emplace_back(1, QString("So there is no parting board, no laminate to lay, no cure on a plug and no "
                                "taking off: Shell has "
                                "nothing to lay, Release no plug to coat, Heat the part's cure alone."));
}

}  // namespace

std::vector<Sentence> plug_sentences(const Job& job, const Shop& shop) {
    const auto& c = job.plug;
    Sentences out{{"The plug is", enum_word<Route>("/plug/route", "route of the plug"), "."}};
    switch (c.route) {
        case Route::block:
            block(out, shop);
            break;
        case Route::slabs:
            slabs(job, shop, out);
            break;
        case Route::skeleton:
            skeleton(out, shop);
            break;
        case Route::foam:
            foam(out, shop);
            break;
        case Route::tiles:
            tiles(out, shop, "/plug/tiles");
            break;
        case Route::existing:
            out.push_back({"It takes",
                           quantity_word("/plug/existing/preparing", "preparing", Kind::factor, 0.2, 8),
                           "h/m² to clean, repair and flat it."});
            break;
        case Route::splash:
            out.push_back(
                {"Soft foam of", shop_word("/plug/board", "plug board", shop.boards),
                 "is shaped by eye; the splash is",
                 quantity_word("/plug/splash/thickness", "thickness of the splash", Kind::length, 0.005,
                               0.05),
                 "thick and the taking-off shrinks",
                 quantity_word("/plug/splash/shrink", "shrinkage of the splash", Kind::ratio, 0, 0.01), "."});
            break;
        case Route::direct:
            direct(job, out, shop);
            return out;
    }
    if (job.split.way != SplitWay::one) {
        Sentence by{"Pieces of the mould are taken from",
                    flag_word("/plug/by_piece", "plugs", "plugs of their own", "one plug")};
        if (c.by_piece) {
            const auto count = std::min<std::size_t>(
                job.split.way == SplitWay::plane ? 2 : static_cast<std::size_t>(job.split.pieces),
                job.split.names.size());
            // Those without a route of their own take the one above.
            for (std::size_t i = 0; i < std::min(count, c.piece_routes.size()); ++i) {
                by.emplace_back(
                    QString(i ? "; %1 from" : ": %1 from").arg(QString::fromStdString(job.split.names[i])));
                by.emplace_back(enum_word<Route>("/plug/piece_routes/" + std::to_string(i),
                                                 QString("route of piece %1").arg(i + 1)));
            }
        }
        by.emplace_back(".");
        out.push_back(std::move(by));
    }
    out.push_back({"Seal it with", enum_word<Barrier>("/plug/barrier", "barrier"),
                   "; barrier, filler and paint build up",
                   quantity_word("/plug/build_up", "build-up", Kind::thickness, 0, 0.003), "."});
    Sentence bag{"The shell on it is cured",
                 flag_word("/plug/in_envelope", "envelope bag", "inside an envelope bag",
                           "without a bag round the plug")};
    if (c.in_envelope) {
        bag.emplace_back("at");
        bag.emplace_back(quantity_word("/plug/vacuum", "vacuum", Kind::pressure, 10000, 101325));
    }
    bag.emplace_back(".");
    out.push_back(std::move(bag));
    return out;
}

}  // namespace jig::app
