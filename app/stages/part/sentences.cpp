#include "app/stages/sentences.hpp"
#include "core/stages/part/regions.hpp"

namespace jig::app {
namespace {

/// How each core of these layers is worked, and how all of them are laid.
void add_cores(const std::vector<Layer>& layers, const QString& at, std::vector<Sentence>& out) {
    for (std::size_t i = 0; i < layers.size(); ++i) {
        if (layers[i].kind != LayerKind::core) continue;
        const auto& cut = layers[i].cut;
        const auto path = QString("%1/%2/cut/").arg(at).arg(i);
        const auto word = [&](const char* field) { return (path + field).toStdString(); };
        Sentence core{QString::fromStdString(layers[i].material) + " has",
                      enum_word<Slits>(word("slits"), "slits in the core")};
        if (cut.slits != Slits::none)
            core.insert(
                core.end(),
                {"of", quantity_word(word("slit"), "width of slits", Kind::thickness, 0.0003, 0.01), "and",
                 quantity_word(word("slit_depth"), "depth of slits", Kind::thickness, 0.0005, 0.05),
                 "deep, every",
                 quantity_word(word("slit_pitch"), "pitch of slits", Kind::length, 0.01, 0.2)});
        core.insert(
            core.end(),
            {", holes of",
             or_none(quantity_word(word("hole"), "holes in the core", Kind::thickness, 0, 0.01), "none")});
        if (cut.hole > 0)
            core.insert(core.end(), {"every", quantity_word(word("hole_pitch"), "pitch of holes",
                                                            Kind::length, 0.01, 0.2)});
        core.insert(core.end(),
                    {", and is laid", flag_word(word("heated"), "core bent hot", "hot", "cold"), "."});
        out.push_back(std::move(core));
    }
}

/// How much resin is mixed.
Sentence mixed_by(const Job& job) {
    Sentence out{"What is mixed goes", enum_word<ResinBy>("/part/resin_by", "what rules the resin")};
    if (job.part.resin_by == ResinBy::ratio)
        out.insert(out.end(), {"of",
                               quantity_word("/part/ratio", "resin to dry cloth", Kind::factor, 0.3, 3,
                                             "by mass: 1 is usual by hand, less under a bag"),
                               "to one"});
    out.emplace_back("; what goes beside the laminate is listed under Resin.");
    return out;
}

}  // namespace

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
        mixed_by(job),
        {"Its cloth is laid down first",
         quantity_word("/part/drape/along", "cloth starts along", Kind::length, -5, 5, "0 is the middle"),
         "along the tool and",
         quantity_word("/part/drape/across", "cloth starts across", Kind::length, -5, 5, "0 is the middle"),
         "across it from the middle, its zero turned by",
         quantity_word("/part/drape/turn", "turn of the cloth", Kind::angle, -kPi / 2, kPi / 2), "."},
        {"Its plies are cut", quantity_word("/part/kit/trim", "trim of the plies", Kind::length, 0, 0.1),
         "larger along the rim, and pieces of one ply lie",
         quantity_word("/part/kit/lap", "lap of a ply's pieces", Kind::length, 0, 0.1), "over each other."}};
    add_cores(job.part.layers, "/part/layers", out);
    bool cored = part::has_core(job.part.layers);
    for (std::size_t z = 0; z < job.part.zones.size(); ++z) {
        add_cores(job.part.zones[z].layers, QString("/part/zones/%1/layers").arg(z), out);
        cored = cored || part::has_core(job.part.zones[z].layers);
    }
    if (cored)
        out.push_back(
            {"Its panels leave",
             quantity_word("/part/core/gap", "gap between panels", Kind::thickness, 0, 0.005),
             "between them and may stretch by",
             quantity_word("/part/core/takes", "stretch of a panel", Kind::ratio, 0.002, 0.05,
                           "what a sheet takes as it is pressed onto a face that bends both ways"),
             "; along its edge cells are filled",
             or_none(quantity_word("/part/core/edge", "filled edge of the core", Kind::length, 0, 0.05),
                     "nowhere"),
             "."});
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
             "of", shop_word("/part/joint/adhesive", "adhesive of the joint", shop.bonds), "and",
             quantity_word("/part/joint/squeeze_out", "squeeze-out", Kind::ratio, 0, 1), "squeezed out"});
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
