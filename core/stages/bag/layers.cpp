#include "core/stages/bag/layers.hpp"

#include <cmath>

#include "core/base/units.hpp"

namespace jig::bag {
namespace {

class Layers {
  public:
    Layers(const Ground& ground, const Lists<Consumable>& shop) : ground_(ground), shop_(shop) {}

    /// One that covers the face, or ends `inset` m before its rim.
    void add(const char* name, double inset, std::string covers) {
        const auto& stock = need(shop_.consumables, name, "bag");
        auto& out = all_.emplace_back();
        out.name = name;
        out.covers = std::move(covers);
        out.area = std::max(0.0, ground_.area - inset * ground_.rim);
        out.length = std::max(0.0, ground_.length - 2 * inset);
        out.width = std::max(0.0, ground_.width - 2 * inset);
        out.roll = stock.width;
        off_roll(out);
        const double takes = std::max(taken_by_shear(stock.shears), taken_by_stretch(stock.stretches));
        out.judged = takes > 0;
        if (out.judged) out.darts = darts_of(ground_.curved, takes);
    }
    /// `count` of it for the shown piece; off no roll where it is there already.
    void add_film(const Film& film, double area, bool measured, bool off_a_roll, const char* of, int count,
                  std::string name, std::string covers) {
        const auto& stock = need(shop_.consumables, of, "bag");
        auto& out = all_.emplace_back();
        out.name = std::move(name);
        out.covers = std::move(covers);
        out.area = area;
        if (measured) {
            out.length = film.length;
            out.width = film.width;
            out.roll = off_a_roll ? stock.width : 0;
            off_roll(out, count);
        }
    }
    std::vector<BagLayer> done() { return std::move(all_); }

  private:
    /// The way that takes less of it.
    void off_roll(BagLayer& layer, int count = 1) const {
        if (!(layer.roll > kLayerOverlap) || !(layer.length > 0) || !(layer.width > 0)) return;
        struct Way {
            RollCut cut;
            int beside = 1;
            [[nodiscard]] double metres() const { return cut.metres / beside; }
        };
        // What is left beside a narrow one is the next pull's.
        const auto way = [&](double length, double width) {
            return Way{cut_off_roll(length, width, 0, layer.roll, kLayerOverlap),
                       std::max(1, static_cast<int>(std::floor(layer.roll / width + 1e-9)))};
        };
        const auto along = way(layer.length, layer.width), across = way(layer.width, layer.length);
        const auto& best = across.metres() < along.metres() * (1 - 1e-9) ? across : along;
        layer.cut.strips =
            std::max(1, static_cast<int>(std::lround(best.cut.strips * count * ground_.pieces)));
        layer.cut.metres = best.metres() * count * ground_.pieces;
        layer.beside = best.beside;
    }
    const Ground& ground_;
    const Lists<Consumable>& shop_;
    std::vector<BagLayer> all_;
};

}  // namespace

std::vector<BagLayer> layers(const Choices& c, LayUp how, const Ground& ground, const Film& film,
                             double film_area, const Wrap& wrap, const Lists<Consumable>& shop) {
    Layers out(ground, shop);
    const bool infused = how == LayUp::infused;
    if (c.peel_ply) out.add("peel ply", 0, "the face, joints as well");
    if (c.film == ReleaseFilm::perforated) out.add("perforated film", 0, "the face");
    if (c.film == ReleaseFilm::solid) out.add("release film", 0, "the face");
    if (infused && c.infusion.medium) {
        // Lines along the face are drawn off round the rim; other vents lie where the maker has them.
        const bool round =
            c.infusion.plan == InfusionPlan::spine || c.infusion.plan == InfusionPlan::fishbone;
        const double brake = round ? c.infusion.brake : 0;
        out.add("flow medium", brake,
                brake > 0 ? "the face, ending " + quantity(Kind::length, brake) + " before its rim"
                          : "the face, but for the brake before a vent");
    }
    if (!infused && c.breather) out.add("breather", 0, "the face");
    const bool measured = ground.length > 0;
    switch (c.way) {
        case BagWay::envelope:
            out.add_film(film, film_area, measured, true, "bag film", std::max(1, wrap.sheets), "bag film",
                         "the whole tool, face and back");
            break;
        case BagWay::tube:
            // It comes as wide as it is, and is cut to length.
            out.add_film(film, film_area, measured, false, "bag tube", 1, "bag tube",
                         "the whole tool, face and back");
            break;
        case BagWay::reusable:
            out.add_film(film, film_area, measured, false, "reusable bag", 1, "reusable bag",
                         "face, flange and its land");
            break;
        case BagWay::surface:
            out.add_film(film, film_area / c.films(), measured, !c.own_sheet(), "bag film", 1, "bag film",
                         "face, flange and both tape lands");
            if (c.second)
                out.add_film(film, film_area / c.films(), measured, !c.own_sheet(), "bag film", 1,
                             "second bag film", "all of the first");
    }
    return out.done();
}

}  // namespace jig::bag
