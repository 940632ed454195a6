#include "core/shop/stack_figures.hpp"

namespace jig {

StackSum sum_stack(const std::vector<Layer>& layers, const Resin& resin, LayUp how, const PlyLists& shop,
                   const std::string& where) {
    if (layers.empty())
        throw InputError(where, "the stack has no layer", "add a ply, or start again from a school");
    StackSum out;
    out.laid = lay_up(layers, resin, how, shop, where);
    out.laminate = laminate(plies_of(out.laid));
    out.cure = cure_strain(out.laid, resin, shop);
    for (const auto& l : out.laid) {
        if (how != LayUp::prepreg || l.layer.kind == LayerKind::coupling) out.mixed += l.resin;
        out.fibre += l.fibre;
        out.resin += l.resin;
        out.other += l.other;
        out.price += l.price;
    }
    return out;
}

}  // namespace jig
