#include "app/print/stage_sheets.hpp"
#include "app/print/part_tables.hpp"

#include "app/charts/charts.hpp"
#include "app/ribbon/ribbon.hpp"
#include "app/slip/words.hpp"
#include "core/stages/back/trial.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/cautions.hpp"
#include "core/stages/heat/sensors.hpp"

namespace jig::app {
namespace {

class Sheets {
  public:
    Sheets(SheetPen& pen, const Job& job, const Findings& f, const Wording& w)
        : pen_(pen), job_(job), f_(f), w_(w) {}

    void all() {
        summary();
        for (std::size_t s = 1; s < kStages.size(); ++s) stage(static_cast<Stage>(s), false);
        pen_.heading("Take care");
        for (std::size_t s = 0; s < kStages.size(); ++s) cautions(static_cast<Stage>(s), true);
        pen_.paragraph(QString::fromUtf8(kDeferral), 10, true);
    }

    /// `alone`: with its calls and cautions, which stand elsewhere where all is printed.
    void stage(Stage stage, bool alone) {
        pen_.heading(name_of(stage).said, 110);
        if (alone) calls(stage);
        figures(stage);
        switch (stage) {
            case Stage::plug:
                surface();
                break;
            case Stage::edge:
                fittings();
                break;
            case Stage::shell:
                section("Section at the cut", Stage::shell);
                if (!is_solid(f_.shell->stack)) stack("Shell stack, from the plug out", f_.shell->stack);
                lay_up();
                break;
            case Stage::back:
                ribs();
                trial();
                break;
            case Stage::release:
                release();
                break;
            case Stage::part:
                section("The part in the tool", Stage::part);
                stack("Part stack, from the tool in", f_.part->stack);
                for (const auto& r : f_.part->regions) {
                    if (r.zones == 0) continue;
                    std::string names;
                    for (std::size_t z = 0; z < job_.part.zones.size(); ++z) {
                        if ((r.zones >> z & 1u) != 0)
                            names += (names.empty() ? "" : " and ") + job_.part.zones[z].name;
                    }
                    stack(QString::fromStdString("Where " + names + " lies, on " +
                                                 show(Kind::area, r.area, w_)),
                          r.stack);
                }
                for (const auto& t : part_tables(job_, f_, w_)) {
                    pen_.heading(t.heading);
                    pen_.paragraph(t.before);
                    pen_.table(t.columns, t.rows, t.widths, t.right);
                }
                break;
            case Stage::bag:
                tightening();
                layers();
                rim();
                hoses();
                chart(stage);
                break;
            case Stage::heat:
                folds();
                sensors();
                chart(stage);
                break;
            case Stage::run:
                materials();
                chart(stage);
                days();
                break;
            case Stage::log:
                log();
                break;
            case Stage::brief:
            case Stage::shape:
            case Stage::split:
                break;
        }
        if (alone) cautions(stage, false);
    }

  private:
    QString worded_(const std::string& s) const { return QString::fromStdString(worded(s, w_)); }
    QString shown(Kind kind, double v) const { return QString::fromStdString(show(kind, v, w_)); }

    void figures(Stage stage) {
        QList<QStringList> rows;
        for (const auto& f : f_.figures(stage))
            rows << QStringList{worded_(f.name), shown(f.kind, f.value), worded_(f.reason)};
        if (!rows.isEmpty())
            pen_.table({"figure", "", "from"}, rows, {0.32, 0.16, 0.52}, {false, true, false});
    }

    void summary() {
        pen_.heading("Brief");
        const auto& b = job_.brief;
        pen_.paragraph(QString("%1 of the %2: %3, by %4, at up to %5, to %6.")
                           .arg(b.pulls == 1 ? QString("1 pull") : QString("%1 pulls").arg(b.pulls))
                           .arg(QString::fromStdString(b.part), text_of(said(b.grade)),
                                text_of(said(b.process)), shown(Kind::temperature, b.top_temperature),
                                shown(Kind::thickness, b.tolerance)));
        figures(Stage::brief);
        pen_.heading("Calls");
        if (f_.calls.empty()) pen_.paragraph("None.");
        for (const auto& call : f_.calls) say(call, true);
    }

    void calls(Stage stage) {
        bool any = false;
        for (const auto& call : f_.calls) {
            if (call.stage != stage) continue;
            say(call, false);
            any = true;
        }
        if (!any) pen_.paragraph("No calls.", 9.5);
    }

    void say(const Call& call, bool with_stage) {
        const QString mark = call.severity == Severity::stop      ? "Stop"
                             : call.severity == Severity::caution ? "Caution"
                                                                  : "Note";
        pen_.paragraph(
            QString("%1%2: %3")
                .arg(mark, with_stage ? QString(", ") + name_of(call.stage).said : QString(),
                     worded_(call.headline)),
            10, true,
            call.severity == Severity::note ? QColor() : severity_colour(call.severity, pen_.ink()));
        pen_.paragraph(worded_(call.why), 9.5);
    }

    void section(const QString& title, Stage stage) {
        pen_.heading(title, 220);
        paint_section(pen_.painter(), pen_.room(220), section_at_cut(job_, f_, stage), pen_.ink(), w_, -1, 1);
    }

    /// Where each cure's thermocouples go, to be ticked as they are put there.
    void sensors() {
        if (!f_.heat) return;
        for (const auto& run : f_.heat->cures->runs) {
            QList<QStringList> rows;
            for (const auto& s : heat::sensors_of(run, job_.heat))
                rows << QStringList{QString::fromStdString(s.where), QString::fromStdString(s.for_what),
                                    s.alarm ? shown(Kind::temperature, *s.alarm) : QString(), kBox};
            if (rows.isEmpty()) continue;
            pen_.heading("Thermocouples: " + text_of(said(run.of)));
            pen_.table({"where", "for", "alarm at", ""}, rows, {0.48, 0.34, 0.12, 0.06},
                       {false, false, true, false});
        }
    }

    /// What each fold is to be built at, and beside it room for what the first part measures.
    void folds() {
        if (!f_.heat || f_.heat->folds.all.empty()) return;
        const auto& use = f_.heat->folds;
        QList<QStringList> rows;
        for (std::size_t i = 0; i < use.all.size(); ++i)
            rows << QStringList{QString("%1 %2").arg(i + 1).arg(QString::fromStdString(use.on.where[i])),
                                hundredths((*use.on.folds)[i].turn),
                                shown(Kind::angle, use.all[i].closes),
                                hundredths(use.all[i].build),
                                shown(Kind::thickness, use.all[i].moves),
                                QString()};
        pen_.heading("Folds, as the part closes");
        pen_.table({"fold", "turns", "closes", "build it", "flank moves", "first part"}, rows,
                   {0.30, 0.14, 0.14, 0.14, 0.14, 0.14}, {false, true, true, true, true, true});
    }

    void chart(Stage stage) {
        for (const auto& plot : plots_of(job_, f_, stage, w_))
            paint_plot(pen_.painter(), pen_.room(210), plot, pen_.ink(), w_);
    }

    void surface() {
        for (const auto& plan : f_.plug->plans) {
            if (plan.works.empty()) continue;
            const QString what = plan.mould ? "Making the mould" : "Building the plug";
            pen_.heading(f_.plug->plans.size() > 1 ? what + " of " + QString::fromStdString(plan.body)
                                                   : what);
            QList<QStringList> rows;
            for (const auto& work : plan.works)
                rows << QStringList{worded_(work.what), shown(Kind::hours, work.hours * 3600),
                                    work.wait > 0 ? shown(Kind::duration, work.wait) : QString(), kBox};
            pen_.table({"work", "hours", "then wait", "done"}, rows, {0.60, 0.15, 0.16, 0.09},
                       {false, true, true, false});
        }
        if (f_.plug->finish.empty()) return;
        pen_.heading("Surface schedule");
        QList<QStringList> rows;
        for (const auto& step : f_.plug->finish)
            rows << QStringList{worded_(step.what),
                                QString::fromStdString(step.product),
                                step.amount > 0 ? shown(step.kind, step.amount) : QString(),
                                shown(Kind::hours, step.hours * 3600),
                                step.wait > 0 ? shown(Kind::duration, step.wait) : QString(),
                                kBox};
        pen_.table({"step", "product", "amount", "hours", "then wait", "done"}, rows,
                   {0.29, 0.25, 0.13, 0.11, 0.14, 0.08}, {false, false, true, true, true, false});
    }

    void fittings() {
        if (f_.edge->fits.empty()) return;
        pen_.heading("Fittings, along the line they stand on");
        QList<QStringList> rows;
        int n = 1;
        for (const auto& fit : f_.edge->fits)
            rows << QStringList{QString::number(n++),
                                text_of(said(fit.kind)),
                                shown(Kind::ratio, fit.at),
                                shown(Kind::length, fit.place.x()),
                                shown(Kind::length, fit.place.y()),
                                kBox};
        pen_.table({"", "fitting", "way round", "across", "along", "done"}, rows,
                   {0.06, 0.34, 0.16, 0.17, 0.17, 0.10}, {true, false, true, true, true, false});
    }

    void stack(const QString& title, const StackSum& sum) {
        pen_.heading(title);
        QList<QStringList> rows;
        int n = 1;
        for (const auto& l : sum.laid) {
            rows << QStringList{
                QString::number(n++),
                QString::fromStdString(l.name) +
                    (may_harden(l.layer.kind) && l.layer.hardens && n <= static_cast<int>(sum.laid.size())
                         ? ", hardens before the next"
                         : ""),
                l.layer.kind == LayerKind::ply ? shown(Kind::angle, l.layer.angle) : QString(),
                shown(Kind::thickness, l.ply.thickness),
                shown(Kind::areal_mass, l.fibre),
                shown(Kind::areal_mass, l.resin),
                text_of(said(l.origin.kind)),
                kBox};
        }
        pen_.table({"", "layer", "angle", "thickness", "fibre", "resin", "figures", "laid"}, rows,
                   {0.05, 0.29, 0.08, 0.13, 0.13, 0.13, 0.12, 0.07},
                   {true, false, true, true, true, true, false, false});
    }

    void lay_up() {
        if (f_.shell->order.empty()) return;
        pen_.heading("Lay-up in order");
        QList<QStringList> rows;
        for (const auto& step : f_.shell->order) {
            rows << QStringList{worded_(step.what),
                                shown(Kind::duration, step.from),
                                step.resin > 0 ? shown(Kind::mass, step.resin) : QString(),
                                step.batches > 0 ? QString::number(step.batches) : QString(),
                                step.offset > 0 ? shown(Kind::length, step.offset) : QString(),
                                worded_(step.note),
                                kBox};
        }
        pen_.table({"step", "from", "resin", "pots", "shifted", "", "done"}, rows,
                   {0.27, 0.12, 0.11, 0.07, 0.11, 0.25, 0.07}, {false, true, true, true, true, false, false});
    }

    void ribs() {
        if (!f_.back->crate) return;
        pen_.heading("Ribs");
        QList<QStringList> rows;
        for (const auto& piece : back::cut_pieces(*f_.back->crate)) {
            const Point2 size = high_corner(piece.outline) - low_corner(piece.outline);
            rows << QStringList{QString::fromStdString(piece.name), shown(Kind::length, size.x()),
                                shown(Kind::length, size.y()), worded_(piece.words), kBox};
        }
        pen_.table({"rib", "long", "high", "", "fitted"}, rows, {0.18, 0.13, 0.13, 0.47, 0.09},
                   {false, true, true, false, false});
    }

    void trial() {
        if (!f_.trial) return;
        pen_.heading("The tool on trial");
        QList<QStringList> rows;
        for (const auto& c : f_.trial->cases)
            rows << QStringList{text_of(said(c.kind)), worded_(c.how), shown(Kind::thickness, c.moves),
                                shown(Kind::thickness, c.error), worded_(c.where)};
        pen_.table({"load", "", "moves", "face out by", "where"}, rows, {0.24, 0.28, 0.11, 0.13, 0.24},
                   {false, false, true, true, false});
    }

    /// How far a product is let down for spraying, as a painter says it.
    [[nodiscard]] static QString thinned(const ReleaseSystem& system, const std::string& product) {
        for (const auto& coat : system.first_use) {
            if (coat.product == product && coat.thinner > 0)
                return QString(", 1 : %1 thinned").arg(coat.thinner, 0, 'g', 2);
        }
        return {};
    }

    void release() {
        for (const auto& face : f_.release->faces) {
            pen_.heading(
                QString("Release clock of %1: %2")
                    .arg(QString::fromStdString(face.name), QString::fromStdString(face.system.name)),
                90);
            for (const auto& j : face.judgements) {
                if (j.verdict != Verdict::good)
                    pen_.paragraph(
                        QString("%1: %2 %3")
                            .arg(QString::fromStdString(j.pair), QString::fromStdString(j.why),
                                 QString::fromStdString(j.mend)),
                        9.5, true,
                        severity_colour(j.verdict == Verdict::stop ? Severity::stop : Severity::caution,
                                        pen_.ink()));
            }
            QList<QStringList> rows;
            for (const auto& step : face.steps) {
                const double t = std::fmod(step.turn, kPi);
                rows << QStringList{QString::fromStdString(step.product) + thinned(face.system, step.product),
                                    QString("%1 of %2").arg(step.coat).arg(step.of),
                                    t < 0.35                       ? "along"
                                    : std::abs(t - kPi / 2) < 0.35 ? "across"
                                                                   : "aslant",
                                    shown(Kind::duration, step.at),
                                    shown(Kind::duration, step.wait),
                                    step.latest > 0 ? shown(Kind::duration, step.latest) : QString(),
                                    "",
                                    "",
                                    kBox};
            }
            rows << QStringList{
                face.of == release::FaceOf::mould ? "lay-up may begin" : "shell may be laid",
                "",
                "",
                shown(Kind::duration, face.clock),
                "",
                face.system.good_for > 0 ? shown(Kind::duration, face.system.good_for) : QString(),
                "",
                "",
                kBox};
            pen_.table({"product", "coat", "way", "at", "then wait", "at most", "clock", "signed", "done"},
                       rows, {0.22, 0.09, 0.09, 0.11, 0.12, 0.11, 0.10, 0.09, 0.07},
                       {false, false, false, true, true, true, false, false, false});
            pen_.paragraph(QString::fromStdString(face.system.care), 9.5);
        }
        if (f_.release->kept_clear > 0)
            pen_.paragraph("Keep the tape land clear: masked until bagging.", 9.5);
        if (f_.release->seam > 0)
            pen_.paragraph(
                QString("Lines between pieces, %1: %2.")
                    .arg(shown(Kind::length, f_.release->seam), text_of(said(f_.release->seam_with))),
                9.5);
    }

    /// Bolts of a squeeze mould in their order, with a box for each round.
    void tightening() {
        if (!f_.bag || !f_.bag->clamp || f_.bag->clamp->order.empty()) return;
        const auto& k = *f_.bag->clamp;
        pen_.heading("Bolts, crosswise in rounds");
        QStringList columns{"order", "along, across"};
        for (const double share : bag::kRounds) columns << shown(Kind::torque, share * k.torque);
        QList<QStringList> rows;
        for (std::size_t i = 0; i < k.order.size(); ++i) {
            const auto& p = k.order[i].place;
            rows << QStringList{QString::number(i + 1),
                                shown(Kind::length, p.x()) + ", " + shown(Kind::length, p.y()), kBox, kBox,
                                kBox};
        }
        pen_.table(columns, rows, {0.1, 0.36, 0.18, 0.18, 0.18}, {true, false, false, false, false});
        pen_.paragraph(
            "Wrenches and friction differ by a quarter: draw evenly, look at the gap all round, and heed "
            "what the resin's and the bolts' makers say.",
            9.5);
    }

    /// What is cut for the bag, in the order of laying.
    void layers() {
        if (!f_.bag || !f_.bag->closed) return;
        pen_.heading("Layers, from the last ply out");
        QList<QStringList> rows;
        for (const auto& l : f_.bag->layers)
            rows << QStringList{
                QString::fromStdString(l.name),
                worded_(l.covers),
                l.length > 0 ? shown(Kind::length, l.length) + " × " + shown(Kind::length, l.width)
                             : shown(Kind::area, l.area),
                l.cut.metres > 0 ? shown(Kind::length, l.cut.metres) +
                                       (l.cut.strips > 1 ? QString(", in %1").arg(l.cut.strips) : QString())
                                 : QString(),
                l.judged ? QString::number(l.darts.size()) : QString(),
                kBox};
        pen_.table({"layer", "covers", "cut", "off the roll", "darts", "laid"}, rows,
                   {0.17, 0.31, 0.21, 0.17, 0.07, 0.07}, {false, false, true, true, true, false});
    }

    /// Where hoses, gauge and pleats stand on the film's land.
    void rim() {
        if (!f_.bag || !f_.bag->closed || f_.bag->rim.things.empty()) return;
        pen_.heading("On the film's land, along it from where it begins");
        QList<QStringList> rows;
        int counts[3] = {};
        for (const auto& s : f_.bag->rim.things)
            rows << QStringList{
                QString("%1 %2").arg(text_of(said(s.what))).arg(++counts[static_cast<int>(s.what)]),
                shown(Kind::length, s.at * f_.bag->rim.length),
                s.what == RimThing::pleat ? shown(Kind::length, s.height) : QString(), kBox};
        pen_.table({"what", "along", "tall", "set"}, rows, {0.34, 0.28, 0.28, 0.1},
                   {false, true, true, false});
    }

    /// The hoses with what they are to do, and boxes for what they did.
    void hoses() {
        for (const auto& flow : {f_.flow, f_.other_flow}) {
            if (flow) hoses_of(*flow);
        }
        if (f_.flow || f_.other_flow)
            pen_.paragraph(
                "Before the first is opened: all hoses clamped, drop test passed, resin degassed, pots "
                "weighed, the trap empty. Clamp a vent when no bubbles come.",
                9.5);
    }

    void hoses_of(const bag::Flow& flow) {
        pen_.heading(flow.of == Infused::shell ? "Hoses of the shell, from the middle of its face"
                                               : "Hoses, from the middle of the face");
        QList<QStringList> rows;
        const bag::FlowGround ground(*flow.face, flow.frame);
        for (std::size_t i = 0; i < flow.ports.size(); ++i) {
            const auto& p = flow.ports[i];
            const Point2 at = ground.seen(p.at);
            const bool feed = i < flow.filling.feeds.size();
            const auto due =
                feed ? flow.filling.feeds[i].opened : flow.filling.vents[i - flow.filling.feeds.size()];
            rows << QStringList{QString::fromStdString(p.name),
                                shown(Kind::length, at.x()) + ", " + shown(Kind::length, at.y()),
                                p.length > 0 ? shown(Kind::length, p.length) : QString(),
                                feed ? text_of(said(p.port.opens)) : QString("wet"),
                                due ? shown(Kind::duration, *due) : QString("never"),
                                feed ? shown(Kind::mass, flow.filling.feeds[i].mass) : QString(),
                                "",
                                "",
                                kBox};
        }
        pen_.table({"hose", "along, across", "line", "opens", "after", "grams", "clock", "drawn", "done"},
                   rows, {0.10, 0.19, 0.10, 0.15, 0.11, 0.11, 0.09, 0.08, 0.07},
                   {false, false, true, false, true, true, false, false, false});
        QList<QStringList> pots;
        const auto time = [&](double s) {
            return (s < 0 ? QString("%1 before") : QString("%1")).arg(shown(Kind::duration, std::abs(s)));
        };
        for (const auto& p : flow.pots)
            pots << QStringList{QString::number(pots.size() + 1),
                                shown(Kind::mass, p.mass - p.hardener),
                                shown(Kind::mass, p.hardener),
                                time(p.mixed),
                                time(p.from),
                                time(p.till),
                                "",
                                kBox};
        if (!pots.isEmpty())
            pen_.table({"pot", "resin", "hardener", "mixed", "drawn from", "empty", "clock", "done"}, pots,
                       {0.08, 0.15, 0.15, 0.16, 0.14, 0.14, 0.11, 0.07},
                       {false, true, true, true, true, true, false, false});
    }

    void materials() {
        pen_.heading("Materials");
        for (std::size_t l = 0; l < 3; ++l) {
            QList<QStringList> rows;
            for (const auto& m : f_.run->materials) {
                if (static_cast<std::size_t>(m.ledger) == l)
                    rows << QStringList{QString::fromStdString(m.what), shown(m.kind, m.amount),
                                        shown(Kind::money, m.cost), worded_(m.note), kBox};
            }
            if (rows.isEmpty()) continue;
            pen_.table({text_of(said(static_cast<Ledger>(l))), "amount", "cost", "", "there"}, rows,
                       {0.34, 0.13, 0.11, 0.35, 0.07}, {false, true, true, false, false});
        }
    }

    void days() {
        pen_.heading("Day plan");
        QList<QStringList> rows;
        for (const auto& b : f_.run->plan.bookings) {
            const auto& t = f_.run->tasks[b.task];
            rows << QStringList{QString::fromStdString(clock_words(b.from)),
                                worded_(t.name),
                                shown(Kind::hours, b.to - b.from),
                                QString::number(t.people),
                                t.wait > 0 ? shown(Kind::duration, t.wait) : QString(),
                                kBox};
            if (!run::last_of(*f_.run, b)) continue;
            for (const auto& look : f_.run->looks[b.task])
                rows << QStringList{QString(), QString::fromUtf8("· ") + worded_(look),
                                    QString(), QString(),
                                    QString(), kBox};
        }
        pen_.table({"start", "work", "hours", "hands", "then wait", "done"}, rows,
                   {0.17, 0.42, 0.11, 0.08, 0.15, 0.07}, {false, false, true, true, true, false});
    }

    /// What was written, and room to write on.
    void log() {
        QList<QStringList> rows;
        for (const auto& e : job_.log.entries)
            rows << QStringList{QString::fromStdString(e.date), text_of(said(e.kind)),
                                e.coats > 0 ? QString::number(e.coats) : QString(),
                                e.mass > 0 ? shown(Kind::mass, e.mass) : QString(),
                                QString::fromStdString(e.note)};
        constexpr int kEmptyRows = 14;
        for (int i = 0; i < kEmptyRows; ++i) rows << QStringList{"\n", "", "", "", ""};
        pen_.table({"date", "what", "coats", "mass", "seen, and by whom"}, rows,
                   {0.16, 0.18, 0.09, 0.14, 0.43}, {false, false, true, true, false});
    }

    void cautions(Stage stage, bool with_stage) {
        const auto list = cautions_for(job_, stage);
        if (list.empty()) return;
        pen_.paragraph(
            with_stage ? QString(kStages[static_cast<std::size_t>(stage)].said) : QString("Take care"), 10,
            true);
        for (const auto& c : list) pen_.paragraph("· " + QString::fromStdString(c), 9.5);
        if (!with_stage) pen_.paragraph(QString::fromUtf8(kDeferral), 10, true);
    }

    SheetPen& pen_;
    const Job& job_;
    const Findings& f_;
    Wording w_;
};

}  // namespace

void draw_all(SheetPen& pen, const Job& job, const Findings& findings, const Wording& wording) {
    Sheets(pen, job, findings, wording).all();
}

void draw_stage(SheetPen& pen, const Job& job, const Findings& findings, Stage stage,
                const Wording& wording) {
    Sheets(pen, job, findings, wording).stage(stage, true);
}

}  // namespace jig::app
