#include "core/stages/plug/attack.hpp"

namespace jig::plug {

const std::array<AttackWord, 8>& substances() {
    static const std::array<AttackWord, 8> all{
        {{Substance::polystyrene, "polystyrene foam",
          "Styrene eats it to nothing: skin it with epoxy first."},
         {Substance::polyurethane, "polyurethane foam and board", "It stands, but it is open: seal it."},
         {Substance::wood, "MDF and plywood", "Moisture and resin swell it: seal edges twice."},
         {Substance::primer, "primer and paint",
          "One-pack paints lift under styrene; two-pack ones want full cure."},
         {Substance::clay, "clay fillets",
          "Clay with sulphur stops polyester and silicone curing: test a patch."},
         {Substance::tape, "tape", "Its glue softens in styrene and its edge prints: wax over it."},
         {Substance::printed, "printed plastic",
          "ABS and ASA soften in styrene; all of them are porous: seal."},
         {Substance::plaster, "plaster", "Water in it stops epoxy and lifts polyester: dry and seal it."}}};
    return all;
}

Attack attack(Substance substance, Family resin) {
    const bool styrene = has_styrene(resin);
    switch (substance) {
        case Substance::polystyrene:
            return styrene ? Attack::dissolves : Attack::stands;
        case Substance::polyurethane:
        case Substance::wood:
            return Attack::stands;
        case Substance::primer:
        case Substance::clay:
        case Substance::tape:
        case Substance::printed:
            return styrene ? Attack::test : Attack::stands;
        case Substance::plaster:
            return resin == Family::plaster ? Attack::stands : Attack::test;
    }
    return Attack::test;
}

const char* said(Attack a) {
    return a == Attack::stands ? "stands" : a == Attack::test ? "test first" : "dissolves";
}

}  // namespace jig::plug
