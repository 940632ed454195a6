// What is worked out behind the window, and comes home to it.
#include <QDir>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QStackedWidget>
#include <QTimer>

#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "core/job/trial.hpp"
#include "core/stages/back/suggest.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/heat/legs.hpp"
#include "core/stages/part/cuts_sought.hpp"
#include "core/stages/part/roll_seams.hpp"
#include "core/stages/plug/sheets.hpp"

namespace jig::app {

bool MainWindow::send(Errand::Work work) {
    if (!errand_.send(std::move(work))) {
        say("Something is being done already: stop it first or wait for it.");
        return false;
    }
    show_progress(0, {});
    progress_->show();
    stop_->show();
    return true;
}

bool MainWindow::send_for_job(Errand::Work work) {
    return send([this, number = document_->job_number(),
                 work = std::move(work)](Progress& progress) -> Errand::Homecoming {
        return [this, number, home = work(progress)] {
            return number == document_->job_number()
                       ? home()
                       : QString("That belonged to the job that was here before: it is let go.");
        };
    });
}

bool MainWindow::set_schools_side_by_side() {
    if (!document_->findings().shell) {
        say("The schools can be set side by side once the shell is worked out.");
        return false;
    }
    if (stage_ != Stage::shell) show_stage(Stage::shell);
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        auto plans = schools_side_by_side(*board, job, shop, progress);
        return [this, job, plans = std::move(plans)]() mutable {
            if (stage_ != Stage::shell)
                return QString("Seven schools are worked out: Ctrl+Shift+R shows them");
            shell_sheet_->show_schools(std::move(plans), job);
            centre_->setCurrentWidget(shell_sheet_);
            return QString("Seven schools worked out for this job");
        };
    });
}

bool MainWindow::set_builds_side_by_side() {
    if (!document_->findings().part) {
        say("Builds can be set side by side once the part is worked out.");
        return false;
    }
    if (stage_ != Stage::part) show_stage(Stage::part);
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        auto plans = builds_side_by_side(*board, job, shop, progress);
        return [this, job, shop, plans = std::move(plans)]() mutable {
            if (stage_ != Stage::part) return QString("The builds are worked out: Ctrl+Shift+B shows them");
            const auto count = plans.size();
            builds_sheet_->show_builds(std::move(plans), job, shop);
            centre_->setCurrentWidget(builds_sheet_);
            return count == 1 ? QString("1 build worked out") : QString("%1 builds worked out").arg(count);
        };
    });
}

bool MainWindow::lay_kit() {
    const auto& f = document_->findings();
    if (!f.part || !f.part->draped || !f.part->draped->face) {
        say("Plies can be laid flat once the part has a face to lie on.");
        return false;
    }
    if (stage_ != Stage::part) show_stage(Stage::part);
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        auto kit = board->kit(board->lay(job, shop), progress);
        return [this, job, shop, kit = std::move(kit)]() mutable {
            const auto pieces = kit->pieces.size();
            if (pieces == 0) return QString("None of its plies can be laid flat");
            if (stage_ != Stage::part) return QString("The kit is laid: Ctrl+Shift+K shows it");
            kit_sheet_->show_kit(std::move(kit), job, shop);
            centre_->setCurrentWidget(kit_sheet_);
            return pieces == 1 ? QString("1 piece laid on its roll")
                               : QString("%1 pieces laid on their rolls").arg(pieces);
        };
    });
}

void MainWindow::keep_build(part::Build build) {
    auto job = document_->job();
    try {
        part::keep(job.part.builds, std::move(build));
    } catch (const InputError& e) {
        return say(QString::fromStdString(e.problem() + ": " + e.mend() + "."));
    }
    document_->replace("keep a build", std::move(job));
}

bool MainWindow::seek_stack() {
    if (!document_->findings().shell) {
        say("A stack can be sought once the shell is worked out.");
        return false;
    }
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        auto found = *board->seek_stack(board->lay(job, shop), progress);
        return [this, job, found = std::move(found)]() mutable {
            const auto tried = found.tried;
            shell_sheet_->show_stacks(std::move(found), job);
            centre_->setCurrentWidget(shell_sheet_);
            return QString("%1 stacks tried").arg(tried);
        };
    });
}

bool MainWindow::keep_offcuts() {
    return send([this, job = document_->job(), board = document_->board(),
                 shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto sheet = board->lay(job, shop);
        const auto laid = board->plug_sheets(sheet, progress);
        const auto findings = board->work_out(sheet, Depth::stages, progress);
        const auto cutting = plug::cutting(findings.plug->plans, job.plug, job.heat.plug_scale, *shop);
        // What was typed into the lists since they were read is not written over.
        auto kept = shop_on_disk();
        std::size_t count = 0;
        for (std::size_t k = 0; k < cutting.stocks.size(); ++k) {
            const auto& stock = cutting.stocks[k].board;
            for (const auto& left : laid->at(k).offcuts) {
                auto piece = stock;
                piece.sheet_length = left.length;
                piece.sheet_width = left.width;
                piece.price = 0;
                piece.origin = {OriginKind::measured, "", "left over from " + job.brief.job};
                // A name that no other board has.
                for (int n = 1; jig::find(kept.boards, piece.name) != nullptr; ++n)
                    piece.name = "offcut " + std::to_string(n) + " of " + stock.name;
                kept.boards.push_back(std::move(piece));
                ++count;
            }
        }
        if (count == 0)
            throw InputError("plug", "its sheets leave no offcut of 100 mm or more both ways",
                             "a route that cuts flat pieces, or larger sheets, leaves some");
        const auto folder = own_library();
        QDir().mkpath(folder);
        write_atomically(write_list(kept, "boards"), (folder + "/boards.json").toStdString());
        auto next = shop_on_disk();
        return [this, count, next = std::move(next)] {
            document_->set_shop(next);
            return QString("%1 offcuts kept in your boards; take one where a plug or board is cut")
                .arg(count);
        };
    });
}

bool MainWindow::seek_pitch() {
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto found = board->seek_pitch(board->lay(job, shop), progress);
        return [this, found] {
            const auto pitch = QString::fromStdString(jig::show(Kind::length, found->pitch, wording_));
            document_->look_again();
            return found->holds ? "A pitch of " + pitch + " holds both limits"
                                : "No pitch holds both limits; the closest tried is " + pitch;
        };
    });
}

bool MainWindow::seek_hoses() {
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto found = board->seek_layout(board->lay(job, shop), progress);
        return [this, found] {
            document_->look_again();
            const bool full = !found->tried.empty() && found->tried.front().fill;
            return full ? "The soonest is full after " +
                              QString::fromStdString(
                                  jig::show(Kind::duration, *found->tried.front().fill, wording_))
                        : QString("None of the plans fills it");
        };
    });
}

bool MainWindow::seek_race() {
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto found = board->seek_race(board->lay(job, shop), progress);
        return [this, found] {
            document_->look_again();
            return QString("Marks are met best with %1 times along the rim and %2 elsewhere")
                .arg(found->race, 0, 'g', 3)
                .arg(found->fit.lets, 0, 'g', 3);
        };
    });
}

bool MainWindow::seek_cuts() {
    const auto& f = document_->findings();
    if (!f.part || !f.part->draped->face) {
        say("There is no face yet that cloth could lie on.");
        return false;
    }
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto found = board->seek_cuts(board->lay(job, shop), progress);
        return [this, job, found]() -> QString {
            const auto area = [&](double a) {
                return QString::fromStdString(jig::show(Kind::area, a, wording_));
            };
            if (found->tried == 0)
                return found->before > 0
                           ? "So little of its cloth locks that no cut is worth it: " + area(found->before)
                           : QString("None of its cloth locks: nothing wants a cut");
            if (found->found == 0)
                return QString("None of %1 cuts that were tried helps; try another start, angle or cloth")
                    .arg(found->tried);
            if (!(document_->job() == job)) return "The job has changed meanwhile: seek once more.";
            auto next = job;
            next.part.cuts = found->cuts;
            document_->replace("cut where cloth locks", std::move(next));
            return QString("%1 of %2 tried: %3 locked in place of %4")
                .arg(found->found == 1 ? QString("1 cut") : QString("%1 cuts").arg(found->found))
                .arg(found->tried)
                .arg(area(found->after), area(found->before));
        };
    });
}

bool MainWindow::seek_seams() {
    const auto& f = document_->findings();
    if (!f.part || !f.part->draped->face || !f.edge || !f.edge->tool) {
        say("There is no face yet that cloth could lie on.");
        return false;
    }
    return send_for_job([this, job = document_->job(), draped = f.part->draped, tool = f.edge->tool,
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto found = part::seams_by_roll(job.part, *draped, *tool, *shop, progress);
        return [this, job, found]() -> QString {
            const auto counted = [](std::size_t n, const char* one, const char* many) {
                return QString("%1 %2").arg(n).arg(n == 1 ? one : many);
            };
            if (found.wide == 0) return "Every ply comes out of its roll in the width that it has.";
            const auto left =
                found.left == 0
                    ? QString()
                    : QString("; %1 no seam along the roll makes fit, the kit parts %2")
                          .arg(counted(found.left, "ply", "plies"), found.left == 1 ? "it" : "them");
            if (found.found == 0) return "No seam was found" + left;
            if (!(document_->job() == job)) return "The job has changed meanwhile: seek once more.";
            auto next = job;
            next.part.cuts = found.cuts;
            document_->replace("seams by the roll", std::move(next));
            return QString("%1, %2 long, for %3 wider than the roll")
                       .arg(counted(found.found, "seam", "seams"),
                            QString::fromStdString(jig::show(Kind::length, found.length, wording_)),
                            counted(found.wide - found.left, "ply", "plies")) +
                   left;
        };
    });
}

bool MainWindow::seek_programme(CureOf of) {
    const auto& f = document_->findings();
    if (!f.heat || f.heat->cures->find(of) == nullptr) {
        say("This job has no such cure.");
        return false;
    }
    return send_for_job([this, of, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto findings = board->work_out(board->lay(job, shop), Depth::stages, progress);
        const auto found = fastest_programme(job, findings, *shop, of, progress);
        const double before = findings.heat->cures->find(of)->seconds;
        return [this, of, job, found, before]() -> QString {
            if (!found.run)
                return "None was found: " + QString::fromStdString(worded(found.stands, wording_));
            if (!(document_->job() == job)) return "The job has changed meanwhile: look once more.";
            const auto say = [&](double s) {
                return QString::fromStdString(jig::show(Kind::duration, s, wording_));
            };
            if (found.run->seconds > before - 300)
                return QString("The programme that you have, %1, is as fast as any of %2 that were tried")
                    .arg(say(before))
                    .arg(found.tried);
            auto next = job;
            heat::legs_in(next.heat, of) = found.run->legs;
            document_->replace("take the soonest programme", std::move(next));
            return QString("%1 in place of %2; %3 programmes tried")
                .arg(say(found.run->seconds), say(before))
                .arg(found.tried);
        };
    });
}

bool MainWindow::set_side_by_side() {
    if (stage_ != Stage::plug) show_stage(Stage::plug);
    return send_for_job([this, job = document_->job(), board = document_->board(),
                         shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto sheet = board->lay(job, shop);
        auto plans = *board->routes(sheet, progress);
        const auto findings = board->work_out(sheet, Depth::stages, progress);
        return [this, plans = std::move(plans), job, findings, shop]() mutable {
            routes_->show_routes(std::move(plans), job, findings, *shop);
            // A sheet does not pull the maker out of another stage.
            if (stage_ != Stage::plug)
                return QString("The routes are worked out: they lie on the Plug's sheet");
            centre_->setCurrentWidget(routes_);
            // What was edited meanwhile is worked out next.
            if (!(document_->job() == job)) QTimer::singleShot(0, this, [this] { set_side_by_side(); });
            return QString("The routes side by side");
        };
    });
}

}  // namespace jig::app
