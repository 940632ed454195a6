#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> part_sentences(const Job& job, const Shop& shop) {
    std::vector<Sentence> out{
        {"Make the part in", shop_word("/part/resin", "part resin", shop.resins), ", laid",
         enum_word<LayUp>("/part/how", "way of laying the part"), ", in the order below from the tool in."},
        {"It gels at",
         quantity_word("/part/gel_temperature", "part gels at", Kind::temperature, kelvin(15), kelvin(180)),
         "and should weigh",
         or_none(quantity_word("/part/target_mass", "target mass", Kind::mass, 0, 20), "whatever comes"),
         "."},
        {"Its stiffness is set against a solid laminate over a span of",
         quantity_word("/part/span", "span", Kind::length, 0.05, 3), "."},
        {"Cloth is cut with", quantity_word("/part/waste", "waste of part", Kind::ratio, 0, 1),
         "of waste, and", quantity_word("/part/pot_loss", "resin lost", Kind::mass, 0, 2),
         "of resin stays in pots and lines."},
        {"Its cloth is laid down first",
         quantity_word("/part/drape/along", "cloth starts along", Kind::length, -5, 5, "0 is the middle"),
         "along the tool and",
         quantity_word("/part/drape/across", "cloth starts across", Kind::length, -5, 5, "0 is the middle"),
         "across it from the middle, its zero turned by",
         quantity_word("/part/drape/turn", "turn of the cloth", Kind::angle, -kPi / 2, kPi / 2), "."}};
    if (!job.part.duty.loads.empty()) {
        out.push_back(
            {"Under what it carries it", enum_word<PartHold>("/part/duty/hold", "way it is held"),
             ", may give",
             or_none(quantity_word("/part/duty/gives", "most that the part gives", Kind::thickness, 0, 0.05),
                     "whatever comes"),
             "and has to hold",
             quantity_word("/part/duty/factor", "times its loads", Kind::factor, 1, 5,
                           "1.5 to 3 is usual, by what hangs on it"),
             "times its loads."});
    }
    const auto& j = job.part.joint;
    Sentence joint{"It joins its mate by", enum_word<JointKind>("/part/joint/kind", "joint")};
    if (j.kind != JointKind::none) {
        joint.insert(
            joint.end(),
            {j.kind == JointKind::butt ? ", a strip of" : ", lapped by",
             quantity_word("/part/joint/lap", "lap", Kind::factor, 5, 40, "10 to 20 times is usual"),
             j.kind == JointKind::butt ? "times its thickness to each side, with a glue gap of"
                                       : "times its thickness, with a glue gap of",
             quantity_word("/part/joint/gap", "glue gap", Kind::thickness, 0.0001, 0.003, "0.2 to 1 mm"),
             "and", quantity_word("/part/joint/squeeze_out", "squeeze-out", Kind::ratio, 0, 1),
             "squeezed out"});
        if (j.kind == JointKind::joggle)
            joint.insert(joint.end(), {"; a layer of tape is",
                                       quantity_word("/part/joint/tape", "tape thickness", Kind::thickness,
                                                     0.00005, 0.001),
                                       "thick"});
    }
    joint.emplace_back(".");
    out.push_back(std::move(joint));
    return out;
}

}  // namespace jig::app
