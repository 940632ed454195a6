#include "app/print/part_tables.hpp"

#include <cmath>

#include "app/print/page.hpp"
#include "app/slip/words.hpp"
#include "core/stages/part/panels.hpp"
#include "core/stages/part/trial.hpp"

namespace jig::app {
namespace {

class Writer {
  public:
    Writer(const Job& job, const Findings& f, const Wording& w) : job_(job), f_(f), w_(w) {}

    [[nodiscard]] PaperTable loads() const {
        PaperTable out{
            "What it carries",
            "It " + text_of(said(job_.part.duty.hold)) +
                QString(", and is to hold %1 times each load.").arg(job_.part.duty.factor, 0, 'g', 3),
            {"load", "", "gives", "most at", "holds"},
            {},
            {0.17, 0.35, 0.1, 0.14, 0.24},
            {false, false, true, false, false}};
        for (const auto& r : f_.part_trial->loads) {
            const auto [share, way] = r.most();
            out.rows << QStringList{text(r.name), QString::fromStdString(worded(r.how, w_)),
                                    shown(Kind::thickness, r.moves), text(r.where),
                                    share > 0 ? QString("%1 ×, then %2")
                                                    .arg(1 / share, 0, 'g', 3)
                                                    .arg(text(std::string(part::said(way))))
                                              : QString()};
        }
        return out;
    }

    [[nodiscard]] PaperTable panels() const {
        PaperTable out{
            "Panels of its core",
            "Seen from the tool, numbered from behind forward; each goes in where its number stands on "
            "the drawing, with its arrow along the tool.",
            {"panel", "of", "as large as", "area", "stretches", "in"},
            {},
            {0.1, 0.34, 0.2, 0.14, 0.14, 0.08},
            {false, false, true, true, true, false}};
        for (const auto& p : f_.core_panels->panels) {
            const Point2 size = high_corner(p.outline) - low_corner(p.outline);
            out.rows << QStringList{text(p.name),
                                    text(p.material),
                                    shown(Kind::length, size.x()) + " × " + shown(Kind::length, size.y()),
                                    shown(Kind::area, p.area),
                                    QString("%1 %").arg(100 * p.stretch, 0, 'f', 1),
                                    kBox};
        }
        return out;
    }

    [[nodiscard]] PaperTable inserts() const {
        PaperTable out{"Where bolts go",
                       "From the middle of the face, seen along the pull; the template has the same places.",
                       {"insert", "set in", "bolt", "wide", "along", "across", "holds", "in"},
                       {},
                       {0.18, 0.24, 0.09, 0.1, 0.11, 0.11, 0.1, 0.07},
                       {false, false, true, true, true, true, true, false}};
        const bool pieces = f_.split && !f_.split->one_piece();
        for (std::size_t i = 0; i < job_.part.inserts.size(); ++i) {
            const auto& insert = job_.part.inserts[i];
            const auto* fit = part::weakest_of(f_.part->inserts, i);
            const double holds = fit != nullptr ? fit->holds : HUGE_VAL;
            const auto on = static_cast<std::size_t>(insert.piece);
            out.rows << QStringList{
                text(insert.name) + (pieces && on > 0 && on <= f_.split->facts.size()
                                         ? ", " + text(f_.split->facts[on - 1].name)
                                         : QString()),
                insert.kind == InsertKind::block ? "block of " + text(insert.block)
                                                 : text_of(said(insert.kind)),
                shown(Kind::thickness, insert.bolt),
                shown(Kind::length, insert.size),
                shown(Kind::length, insert.along),
                shown(Kind::length, insert.across),
                std::isfinite(holds) ? QString("%1 ×").arg(holds, 0, 'g', 3) : QString("—"),
                kBox};
        }
        return out;
    }

  private:
    [[nodiscard]] QString shown(Kind kind, double v) const {
        return QString::fromStdString(jig::show(kind, v, w_));
    }
    static QString text(const std::string& words) { return QString::fromStdString(words); }

    const Job& job_;
    const Findings& f_;
    const Wording& w_;
};

}  // namespace

std::vector<PaperTable> part_tables(const Job& job, const Findings& f, const Wording& w) {
    std::vector<PaperTable> out;
    const Writer writer(job, f, w);
    if (f.part_trial) out.push_back(writer.loads());
    if (f.core_panels) out.push_back(writer.panels());
    if (f.part && !f.part->inserts.front().empty()) out.push_back(writer.inserts());
    return out;
}

}  // namespace jig::app
