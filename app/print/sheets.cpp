#include "app/print/sheets.hpp"

#include <fmt/format.h>

#include <cmath>
#include <QBuffer>
#include <QSvgGenerator>

#include "app/charts/charts.hpp"
#include "app/print/page.hpp"
#include "app/ribbon/ribbon.hpp"
#include "core/job/job_file.hpp"
#include "core/stages/cautions.hpp"

namespace jig::app {
namespace {

QString text_of(std::string_view s) {
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

class Sheets {
  public:
    Sheets(SheetPen& pen, const Job& job, const Findings& f, const Wording& w)
        : pen_(pen), job_(job), f_(f), w_(w) {}

    void all() {
        brief();
        section();
        stack("Shell stack, from the plug out", f_.shell->stack, Stage::shell);
        release();
        stack("Part stack, from the tool in", f_.part->stack, Stage::part);
        materials();
        days();
        cautions();
    }

  private:
    QString worded_(const std::string& s) const { return QString::fromStdString(worded(s, w_)); }
    QString shown(Kind kind, double v) const { return QString::fromStdString(show(kind, v, w_)); }

    void figures(Stage stage) {
        QList<QStringList> rows;
        for (const auto& f : f_.figures(stage))
            rows << QStringList{worded_(f.name), shown(f.kind, f.value), worded_(f.reason)};
        pen_.table({name_of(stage).said, "", "from"}, rows, {0.32, 0.16, 0.52}, {false, true, false});
    }

    void brief() {
        pen_.heading("Brief");
        const auto& b = job_.brief;
        pen_.paragraph(QString("%1 pulls of the %2: %3, by %4, at up to %5, to %6.")
                           .arg(b.pulls)
                           .arg(QString::fromStdString(b.part), text_of(said(b.grade)),
                                text_of(said(b.process)), shown(Kind::temperature, b.top_temperature),
                                shown(Kind::thickness, b.tolerance)));
        for (const auto stage :
             {Stage::shape, Stage::split, Stage::plug, Stage::edge, Stage::shell, Stage::back, Stage::heat})
            figures(stage);
        pen_.heading("Calls");
        if (f_.calls.empty()) pen_.paragraph("None.");
        for (const auto& call : f_.calls) {
            const char* mark = call.severity == Severity::stop      ? "Stop"
                               : call.severity == Severity::caution ? "Caution"
                                                                    : "Note";
            pen_.paragraph(
                QString("%1, %2: %3").arg(mark, name_of(call.stage).said, worded_(call.headline)), 10, true,
                call.severity == Severity::note ? QColor() : severity_colour(call.severity, pen_.ink()));
            pen_.paragraph(worded_(call.why), 9.5);
        }
    }

    void section() {
        pen_.heading("Section at the cut", 230);
        paint_section(pen_.painter(), pen_.room(230), section_at_cut(job_, f_, Stage::shell), pen_.ink(), w_,
                      -1, 1);
        pen_.heading("The part in the tool", 200);
        paint_section(pen_.painter(), pen_.room(200), section_at_cut(job_, f_, Stage::part), pen_.ink(), w_,
                      -1, 1);
    }

    void stack(const QString& title, const StackSum& sum, Stage stage) {
        pen_.heading(title);
        QList<QStringList> rows;
        int n = 1;
        for (const auto& l : sum.laid) {
            rows << QStringList{
                QString::number(n++),
                QString::fromStdString(l.name),
                l.layer.kind == LayerKind::ply ? shown(Kind::angle, l.layer.angle) : QString(),
                shown(Kind::thickness, l.ply.thickness),
                shown(Kind::areal_mass, l.fibre),
                shown(Kind::areal_mass, l.resin),
                text_of(said(l.origin.kind))};
        }
        pen_.table({"", "layer", "angle", "thickness", "fibre", "resin", "figures"}, rows,
                   {0.05, 0.33, 0.09, 0.13, 0.13, 0.13, 0.14}, {true, false, true, true, true, true, false});
        if (stage != Stage::part) return;
        figures(Stage::part);
        figures(Stage::bag);
    }

    void release() {
        pen_.heading("Release clock: " + QString::fromStdString(f_.release->system.name));
        QList<QStringList> rows;
        for (const auto& step : f_.release->plan) {
            rows << QStringList{QString::fromStdString(step.product),
                                QString("%1 of %2").arg(step.coat).arg(step.of),
                                shown(Kind::duration, step.at), shown(Kind::duration, step.wait), ""};
        }
        rows << QStringList{"first pull", "", shown(Kind::duration, f_.release->clock), "", ""};
        pen_.table({"product", "coat", "at", "then wait", "done"}, rows, {0.34, 0.14, 0.18, 0.18, 0.16},
                   {false, false, true, true, false});
        pen_.paragraph(QString::fromStdString(f_.release->system.care) +
                           " Keep the tape land clear: masked until bagging.",
                       9.5);
    }

    void materials() {
        pen_.heading("Materials");
        for (std::size_t l = 0; l < 3; ++l) {
            QList<QStringList> rows;
            for (const auto& m : f_.run->materials) {
                if (static_cast<std::size_t>(m.ledger) == l)
                    rows << QStringList{QString::fromStdString(m.what), shown(m.kind, m.amount),
                                        shown(Kind::money, m.cost), worded_(m.note)};
            }
            if (rows.isEmpty()) continue;
            pen_.table({text_of(said(static_cast<Ledger>(l))), "amount", "cost", ""}, rows,
                       {0.36, 0.13, 0.11, 0.40}, {false, true, true, false});
        }
        figures(Stage::run);
        paint_cost(pen_.painter(), pen_.room(190), *f_.run, pen_.ink(), w_);
    }

    void days() {
        pen_.heading("Day plan");
        QList<QStringList> rows;
        for (const auto& b : f_.run->plan.bookings) {
            const auto& t = f_.run->tasks[b.task];
            const auto from = QString::fromStdString(clock_words(b.from));
            rows << QStringList{from, worded_(t.name), shown(Kind::hours, b.to - b.from),
                                QString::number(t.people),
                                t.wait > 0 ? shown(Kind::duration, t.wait) : QString()};
        }
        pen_.table({"start", "work", "hours", "hands", "then wait"}, rows, {0.18, 0.46, 0.12, 0.08, 0.16},
                   {false, false, true, true, true});
    }

    void cautions() {
        pen_.heading("Take care");
        for (std::size_t s = 0; s < kStages.size(); ++s) {
            const auto list = cautions_for(job_, static_cast<Stage>(s));
            if (list.empty()) continue;
            pen_.paragraph(kStages[s].said, 10, true);
            for (const auto& c : list) pen_.paragraph("· " + QString::fromStdString(c), 9.5);
        }
        pen_.paragraph(QString::fromUtf8(kDeferral), 10, true);
    }

    SheetPen& pen_;
    const Job& job_;
    const Findings& f_;
    Wording w_;
};

/// Beside and renamed: a sheet that cannot be written leaves the last good one.
void write_bytes(const QByteArray& bytes, const QString& path) {
    write_atomically(bytes.toStdString(), path.toStdString());
}

void set_up(QPdfWriter& writer, const QPageSize& size, double margin_mm, const QString& title,
            int resolution) {
    writer.setPageSize(size);
    writer.setPageMargins(QMarginsF(margin_mm, margin_mm, margin_mm, margin_mm), QPageLayout::Millimeter);
    writer.setResolution(resolution);
    writer.setCreator("Jig Shell");
    writer.setTitle(title);
}

}  // namespace

void print_sheets(const Job& job, const Findings& f, const QString& path, const SheetOptions& options) {
    if (!f.complete())
        throw InputError("sheets", "the job has stages without figures",
                         "mend the stops on the job card first");
    const OnPaper paper;
    int pages = 1;
    QByteArray bytes;
    for (int round = 0; round < 2; ++round) {
        bytes.clear();
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        set_up(writer, QPageSize(options.page), 16, QString::fromStdString(job.brief.job), 72);
        SheetPen pen(writer, job, options, pages);
        Sheets(pen, job, f, options.wording).all();
        pages = pen.pages();
    }
    write_bytes(bytes, path);
}

std::vector<FullSize> pieces_at_full_size(const std::vector<CutPiece>& pieces, const Wording& wording) {
    std::vector<FullSize> out;
    for (const auto& piece : pieces)
        out.push_back({piece.outline, QString::fromStdString(worded(piece.words, wording)), piece.engraved});
    return out;
}

std::vector<FullSize> boards_at_full_size(const std::vector<split::Board>& boards, const Wording& wording) {
    std::vector<FullSize> out;
    for (const auto& board : boards) {
        out.push_back({split::drilled(board),
                       QString("parting %1 of %2, %3 along the plug%4")
                           .arg(QString::fromStdString(board.name))
                           .arg(boards.size())
                           .arg(QString::fromStdString(show(Kind::length, board.length, wording)),
                                board.developed ? QString(", laid flat") : QString())});
    }
    return out;
}

void print_full_size(const std::vector<FullSize>& outlines, const QString& title, const QString& path,
                     Progress& progress) {
    if (outlines.empty())
        throw InputError("print", "there is no outline to print", "mend the stops on the job card first");
    const OnPaper paper;
    QByteArray bytes;
    {
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        const auto& k = ink(Light::day);
        constexpr double kPad = 15;  // mm
        std::unique_ptr<QPainter> p;
        double done = 0;
        for (const auto& one : outlines) {
            progress.report(done++ / static_cast<double>(outlines.size()), "drawing at full size");
            const Point2 low = low_corner(one.outline) * 1000, size = high_corner(one.outline) * 1000 - low;
            const QPageSize page(QSizeF(std::max(150.0, size.x() + 2 * kPad), size.y() + 2 * kPad + 20),
                                 QPageSize::Millimeter, {}, QPageSize::ExactMatch);
            if (!p) {
                set_up(writer, page, 0, title, 1200);
                p = std::make_unique<QPainter>(&writer);
            } else {
                writer.setPageSize(page);
                writer.newPage();
            }
            p->resetTransform();
            const double mm = writer.resolution() / 25.4;
            p->scale(mm, mm);
            p->setPen(QPen(k.ink, 0.3));
            for (const auto& loop : one.outline) {
                QPolygonF line;
                for (const auto& q : loop)
                    line << QPointF(q.x() * 1000 - low.x() + kPad,
                                    size.y() - (q.y() * 1000 - low.y()) + kPad);
                p->drawPolygon(line);
            }
            p->setPen(QPen(k.petrol, 0.3));
            for (const auto& line : one.engraved) {
                QPolygonF open;
                for (const auto& q : line)
                    open << QPointF(q.x() * 1000 - low.x() + kPad,
                                    size.y() - (q.y() * 1000 - low.y()) + kPad);
                p->drawPolyline(open);
            }
            for (const auto& [at, words] : one.labels) {
                auto small = word_font(10);
                small.setPixelSize(4);
                p->setFont(small);
                p->drawText(
                    QPointF(at.x() * 1000 - low.x() + kPad, size.y() - (at.y() * 1000 - low.y()) + kPad),
                    words);
            }
            // The frame's own axes, the same on every page, so that a stack goes together true.
            const QPointF origin(-low.x() + kPad, size.y() + low.y() + kPad);
            p->setPen(QPen(k.petrol, 0.2));
            p->drawLine(origin - QPointF(8, 0), origin + QPointF(8, 0));
            p->drawLine(origin - QPointF(0, 8), origin + QPointF(0, 8));
            auto font = word_font(10);
            font.setPixelSize(6);
            p->setFont(font);
            const double foot = size.y() + 2 * kPad + 6;
            p->drawText(QPointF(kPad, foot), one.words);
            p->setPen(QPen(k.ink, 0.5));
            p->drawLine(QPointF(kPad, foot + 6), QPointF(kPad + 100, foot + 6));
            for (const double x : {0.0, 100.0})
                p->drawLine(QPointF(kPad + x, foot + 3), QPointF(kPad + x, foot + 9));
            font.setPixelSize(4);
            p->setFont(font);
            p->drawText(QPointF(kPad + 103, foot + 7.5), "100 mm: measure before cutting");
        }
    }
    write_bytes(bytes, path);
}

void print_assembly(const Job& job, const std::vector<CutPiece>& pieces, const plug::Findings& plug,
                    const QString& path, const SheetOptions& options) {
    const OnPaper paper;
    QByteArray bytes;
    // First pass counts the pages, the second writes their number.
    for (int pass = 0, pages = 1; pass < 2; ++pass) {
        bytes.clear();
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        set_up(writer, QPageSize(options.page), 16, QString::fromStdString(job.brief.job), 72);
        SheetPen pen(writer, job, options, pages);
        pen.heading("Assembly of the plug");
        pen.paragraph(
            "From the foot up, top faces up, arrows to the front. In the finished stack the short lines at "
            "the front edges climb in one slope: a line out of it is a piece out of order or turned.");
        for (const auto& plan : plug.plans) {
            if (plan.slabs.pin_groups > 1)
                pen.paragraph(QString("Pins come in %1 sets; neighbouring sets share a slab.")
                                  .arg(plan.slabs.pin_groups));
        }
        // All to one scale, three beside each other.
        double widest = 0, tallest = 0;
        for (const auto& piece : pieces) {
            const Point2 size = high_corner(piece.outline) - low_corner(piece.outline);
            widest = std::max(widest, size.x());
            tallest = std::max(tallest, size.y());
        }
        constexpr int kAcross = 3;
        const double cell = pen.width() / kAcross, scale = (cell - 16) / std::max(1e-9, widest),
                     high = std::min(300.0, tallest * scale + 64);
        QRectF row;
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            if (i % kAcross == 0) row = pen.room(high);
            const auto& piece = pieces[i];
            const Point2 low = low_corner(piece.outline), size = high_corner(piece.outline) - low;
            const double fit = std::min(scale, (high - 64) / std::max(1e-9, size.y()));
            const QPointF corner(row.left() + static_cast<double>(i % kAcross) * cell + 4, row.top() + 2);
            auto& p = pen.painter();
            const auto at = [&](const Point2& q) {
                return corner + QPointF((q.x() - low.x()) * fit, (size.y() - (q.y() - low.y())) * fit);
            };
            p.setBrush(hatch_ground(Hatch::ply_wood, pen.ink()));
            QPainterPath shape;
            for (const auto& loop : piece.outline) {
                QPolygonF line;
                for (const auto& q : loop) line << at(q);
                line << line.front();
                shape.addPolygon(line);
            }
            p.setPen(QPen(pen.ink().ink, 0.6));
            p.drawPath(shape);
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(pen.ink().petrol, 0.8));
            for (const auto& line : piece.engraved) {
                QPolygonF open;
                for (const auto& q : line) open << at(q);
                p.drawPolyline(open);
            }
            p.setPen(pen.ink().ink);
            p.setFont(word_font(8));
            p.drawText(QRectF(corner.x(), corner.y() + size.y() * fit + 4, cell - 12, 54),
                       Qt::AlignLeft | Qt::TextWordWrap,
                       QString::fromStdString(worded(piece.words, options.wording)) +
                           (piece.inside >= 0 ? QString(", cut out of %1")
                                                    .arg(QString::fromStdString(
                                                        pieces[static_cast<std::size_t>(piece.inside)].name))
                                              : QString()));
        }
        pages = pen.pages();
    }
    write_bytes(bytes, path);
}

void write_section_svg(const Job& job, const Findings& f, Stage stage, const QString& path,
                       const Wording& wording) {
    const auto section = section_at_cut(job, f, stage);
    if (section.empty())
        throw InputError("section", "there is no section to draw", "mend the stops on the job card first");
    const OnPaper paper;
    QByteArray bytes;
    QBuffer buffer(&bytes);
    QSvgGenerator svg;
    svg.setOutputDevice(&buffer);
    svg.setSize({1100, 360});
    svg.setViewBox(QRect(0, 0, 1100, 360));
    svg.setTitle(QString::fromStdString(job.brief.job + ", section at the cut"));
    {
        QPainter p(&svg);
        p.fillRect(QRect(0, 0, 1100, 360), ink(Light::day).sheet);
        paint_section(p, QRectF(0, 0, 1100, 360), section, ink(Light::day), wording);
    }
    write_bytes(bytes, path);
}

}  // namespace jig::app
