#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/plug/findings.hpp"

namespace jig::plug {

Findings evaluate(const Choices& c, const shape::Findings& shape, const split::Findings& split,
                  const Shop& shop, Progress& progress) {
    Findings out;
    out.board = need(shop.boards, c.board, "plug board");
    const auto& b = out.board;
    out.stack = slabs(split::mould_mesh(shape, split), split::mould_topology(shape, split), split.pull,
                      b.thickness, progress);
    double spread = 0;
    for (const auto& slab : out.stack.slabs) {
        out.slab_area += slab.area;
        double rim = 0;
        for (const auto& loop : slab.outline) rim += perimeter(loop);
        out.cut_length += rim;
        spread += slab.area + c.margin * rim;
        for (const auto& loop : slab.outline) {
            const Point2 size = high_corner({loop}) - low_corner({loop}) + Point2::Constant(2 * c.margin);
            const double longest = size.maxCoeff(), shortest = size.minCoeff();
            out.too_large |= longest > std::max(b.sheet_length, b.sheet_width) ||
                             shortest > std::min(b.sheet_length, b.sheet_width);
        }
    }
    const double sheet = b.sheet_length * b.sheet_width;
    out.sheets = static_cast<int>(std::ceil(spread / (sheet * (1 - c.waste)) - 1e-9));
    out.mass = out.stack.volume * b.density;
    out.sanding_area = split.mould_area();
    const auto joints = out.stack.slabs.size() - 1;
    for (std::size_t i = 0; i < joints; ++i)
        out.glue += 0.25 * std::min(out.stack.slabs[i].area, out.stack.slabs[i + 1].area);
    const double solid = std::max(1e-12, split.parts() * shape.measures.volume);
    out.figures = {
        {"slabs", "slabs", Kind::count, static_cast<double>(out.stack.slabs.size()),
         "depth of draw " + quantity(Kind::length, split.map.depth) + " ÷ sheet " +
             quantity(Kind::length, b.thickness) + ", rounded up"},
        {"sheets", "sheets of stock", Kind::count, static_cast<double>(out.sheets),
         fmt::format("({} with margins) ÷ ({} a sheet × {:.0f} % used), rounded up",
                     quantity(Kind::area, spread), quantity(Kind::area, sheet), 100 * (1 - c.waste))},
        {"stack_volume", "volume of the stack", Kind::volume, out.stack.volume,
         fmt::format("slab areas × thickness; {:.1f} % over the shape's own volume goes in sanding",
                     100 * (out.stack.volume / solid - 1))},
        {"mass", "mass of the stack", Kind::mass, out.mass,
         "volume × " + quantity(Kind::density, b.density) + ", before hollowing"},
        {"cut_length", "length of cuts", Kind::length, out.cut_length, "all slab outlines"},
        {"sanding", "surface to sand", Kind::area, out.sanding_area, "moulded area"},
        {"glue", "adhesive", Kind::mass, out.glue, "250 g/m² of joint, typical"},
        {"undersize", "cut the slabs undersize by", Kind::thickness, c.build_up,
         "the build-up of barrier, filler, primer and paint"}};
    return out;
}

}  // namespace jig::plug
