// Files in and out of the window, and what it asks before it leaves.
#include <QBoxLayout>
#include <QCloseEvent>
#include <QDesktopServices>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QLabel>
#include <QMessageBox>
#include <QProgressBar>
#include <QPushButton>
#include <QStackedWidget>
#include <QTextBrowser>
#include <QTimer>
#include <QUrl>

#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/back/suggest.hpp"
#include "core/stages/shape/tray.hpp"

namespace jig::app {
bool MainWindow::open_job(const QString& path) {
    try {
        framed_ = false;
        document_->open(path);
        say("");
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

bool MainWindow::save_job(const QString& path) {
    try {
        document_->save(path);
        say("Saved: " + path);
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

bool MainWindow::send(Errand::Work work) {
    if (!errand_.send(std::move(work))) {
        say("Something is being done already: stop it first or wait for it.");
        return false;
    }
    progress_->setValue(0);
    progress_->show();
    stop_->show();
    return true;
}

bool MainWindow::write_out(const Export& what, const QString& path) {
    // Worked out on the side where the figures on screen are still being renewed, so that the file belongs to
    // the job as it is now.
    return send([write = what.write, path, job = document_->job(), shop = document_->shared_shop(),
                 board = document_->board(), stage = stage_, wording = wording_](Progress& progress) {
        const auto findings = board->work_out(board->lay(job, shop), Depth::fine, progress);
        const auto message = write({job, findings, *shop, stage, wording, path}, progress);
        return [message] { return message; };
    });
}

bool MainWindow::set_schools_side_by_side() {
    if (!document_->findings().shell) {
        say("The schools can be set side by side once the shell is worked out.");
        return false;
    }
    return send([this, job = document_->job(), board = document_->board(),
                 shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        auto plans = schools_side_by_side(*board, job, shop, progress);
        return [this, job, plans = std::move(plans)]() mutable {
            shell_sheet_->show_schools(std::move(plans), job);
            centre_->setCurrentWidget(shell_sheet_);
            return QString("Seven schools worked out for this job");
        };
    });
}

bool MainWindow::seek_stack() {
    if (!document_->findings().shell) {
        say("A stack can be sought once the shell is worked out.");
        return false;
    }
    return send([this, job = document_->job(), board = document_->board(),
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
    return send([this, job = document_->job(), findings = document_->findings(),
                 shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        if (!findings.plug)
            throw InputError("plug", "it has no figures yet", "mend the stops on the job card first");
        auto kept = *shop;
        std::size_t count = 0;
        for (const auto& plan : findings.plug->plans) {
            const auto pieces = plug::cut_pieces(plan, job.plug);
            if (pieces.empty()) continue;
            const auto stock = plug::stock_of(plan, job.plug, *shop);
            for (const auto& left :
                 lay_onto_sheets(pieces, plug::sheet_rules(plan, job.plug, *shop), progress).offcuts) {
                auto board = stock;
                board.sheet_length = left.length;
                board.sheet_width = left.width;
                board.price = 0;
                board.origin = {OriginKind::measured, "", "left over from " + job.brief.job};
                // A name that no other board has.
                for (int n = 1; jig::find(kept.boards, board.name) != nullptr; ++n)
                    board.name = "offcut " + std::to_string(n) + " of " + stock.name;
                kept.boards.push_back(std::move(board));
                ++count;
            }
        }
        if (count == 0)
            throw InputError("plug", "its sheets leave no offcut of 100 mm or more both ways",
                             "a route that cuts flat pieces, or larger sheets, leaves some");
        const auto folder = own_library();
        QDir().mkpath(folder);
        write_atomically(write_list(kept, "boards"), (folder + "/boards.json").toStdString());
        auto next = load_shop(data_folder().toStdString() + "/library", folder.toStdString());
        return [this, count, next = std::move(next)] {
            document_->set_shop(next);
            return QString("%1 offcuts kept in your boards; take one where a plug or board is cut")
                .arg(count);
        };
    });
}

bool MainWindow::seek_pitch() {
    return send([this, job = document_->job(), board = document_->board(),
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

bool MainWindow::set_side_by_side() {
    return send([this, job = document_->job(), board = document_->board(),
                 shop = document_->shared_shop()](Progress& progress) -> Errand::Homecoming {
        const auto sheet = board->lay(job, shop);
        auto plans = *board->routes(sheet, progress);
        const auto findings = board->work_out(sheet, Depth::stages, progress);
        return [this, plans = std::move(plans), job, findings, shop]() mutable {
            routes_->show_routes(std::move(plans), job, findings, *shop);
            if (stage_ != Stage::plug) show_stage(Stage::plug);
            centre_->setCurrentWidget(routes_);
            // What was edited meanwhile is worked out next.
            if (!(document_->job() == job)) QTimer::singleShot(0, this, [this] { set_side_by_side(); });
            return QString("Seven routes side by side");
        };
    });
}

bool MainWindow::bring_in_mesh(const QString& path) {
    const auto& shape = document_->job().shape;
    const ReadRules rules{length_unit(std::string(file_word(shape.unit))), shape.chord};
    // The mesh is proved sound on the side first, so that a bad file changes nothing in the job.
    return send([this, path, rules, mend = shape.mend](Progress& progress) -> Errand::Homecoming {
        const auto name = QFileInfo(path).fileName();
        const auto bytes = std::make_shared<const std::string>(read_file(path.toStdString()));
        const auto mesh = repaired(read_mesh(*bytes, name.toStdString(), rules, progress), progress, mend);
        QString message = QString("%1: %2 triangles").arg(name).arg(mesh.mesh.triangles.size());
        for (const auto& r : mesh.repairs)
            message += QString(", %1 %2").arg(r.count).arg(QString::fromStdString(r.what));
        return [this, name, bytes, message] {
            auto job = document_->job();
            job.shape.kind = ShapeKind::mesh;
            job.shape.file = name.toStdString();
            job.attachments = {{name.toStdString(), bytes}};
            framed_ = false;
            document_->replace("bring in " + name, std::move(job));
            show_stage(Stage::shape);
            return message;
        };
    });
}

bool MainWindow::bring_in_outline(const QString& path) {
    const double unit = length_unit(std::string(file_word(document_->job().shape.unit)));
    return send([this, path, unit](Progress& progress) -> Errand::Homecoming {
        const auto name = QFileInfo(path).fileName();
        progress.report(0.1, "reading the drawing");
        const auto loop = read_outline(read_file(path.toStdString()), name.toStdString(), unit);
        progress.report(0.5, "fitting the outline");
        const auto fitted = shape::fitted_outline(loop, 0.0005);
        return [this, name, fitted] {
            auto job = document_->job();
            job.shape.kind = ShapeKind::tray;
            job.shape.tray.outline = fitted.points;
            framed_ = false;
            document_->replace("bring in " + name, std::move(job));
            show_stage(Stage::shape);
            return QString("%1: %2 points, the smooth line within %3 of the drawn one")
                .arg(name)
                .arg(fitted.points.size())
                .arg(QString::fromStdString(jig::show(Kind::thickness, fitted.stray, wording_)));
        };
    });
}

bool MainWindow::offer_leftovers() {
    const auto files = Document::leftovers(document_->recovery());
    if (files.isEmpty()) return false;
    auto* box = static_cast<QVBoxLayout*>(offer_->layout());
    box->setContentsMargins(12, 4, 12, 4);
    for (const auto& file : files) {
        auto* row = new QWidget(offer_);
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        const auto origin = Document::origin_of(file);
        line->addWidget(new QLabel(
            QString("Jig Shell ended without saving. Work on %1 was kept.")
                .arg(origin.isEmpty() ? "a job that had no file yet" : QFileInfo(origin).fileName()),
            row));
        auto* take = new QPushButton("Take it up", row);
        take->setObjectName("take-up");
        auto* drop = new QPushButton("Throw it away", row);
        drop->setObjectName("throw-away");
        line->addWidget(take);
        line->addWidget(drop);
        line->addStretch();
        box->addWidget(row);
        const auto away = [this, row, file] {
            QFile::remove(file);
            QFile::remove(QString(file).replace(".jigshell", ".origin"));
            row->deleteLater();
            if (offer_->findChildren<QPushButton*>("take-up").size() <= 1) offer_->hide();
        };
        connect(drop, &QPushButton::clicked, this, away);
        connect(take, &QPushButton::clicked, this, [this, file, origin, away] {
            try {
                const auto job = load_job(file.toStdString());
                // As an edit of what is open, so that it counts as unsaved and can be undone.
                document_->start(
                    origin.isEmpty() || !QFileInfo::exists(origin) ? Job{} : load_job(origin.toStdString()),
                    origin);
                framed_ = false;
                document_->replace("take up kept work", job);
                document_->autosave_now();
                away();
            } catch (const InputError& e) {
                say(message_of(e));
            }
        });
    }
    offer_->show();
    return true;
}

void MainWindow::open_library() {
    try {
        const auto folder = own_library();
        QDir().mkpath(folder);
        int copied = 0;
        Shop::lists(document_->shop(), [&](std::string_view name, const auto&) {
            const auto file =
                folder + "/" + QString::fromUtf8(name.data(), static_cast<qsizetype>(name.size())) + ".json";
            if (QFileInfo::exists(file)) return;
            write_atomically(write_list(document_->shop(), name), file.toStdString());
            ++copied;
        });
        document_->set_shop(load_shop(data_folder().toStdString() + "/library", folder.toStdString()));
        say(QString("%1 Your lists are in %2; edit them as text and choose this again to take them over.")
                .arg(copied > 0 ? QString("%1 lists copied.").arg(copied) : QString("Read again."), folder));
        QDesktopServices::openUrl(QUrl::fromLocalFile(folder));
    } catch (const InputError& e) {
        say(message_of(e));
    }
}

void MainWindow::open_handbook() {
    auto* page = new QTextBrowser(this);
    page->setWindowFlag(Qt::Window);
    page->setAttribute(Qt::WA_DeleteOnClose);
    page->setObjectName("handbook");
    page->setWindowTitle(QString("Handbook: %1").arg(name_of(stage_).said));
    page->setSearchPaths({handbook_folder()});
    page->resize(620, 720);
    page->setOpenExternalLinks(false);
    QFile file(QString("%1/%2.md").arg(handbook_folder(), name_of(stage_).key));
    page->setMarkdown(file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll())
                                                     : QString("The handbook is not installed here."));
    page->show();
}

void MainWindow::open_palette() {
    std::vector<Findable> all;
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        all.push_back({kStages[s].said, "stage", [this, stage] { show_stage(stage); }});
    }
    for (const auto& act : acts_) {
        if (act.key != std::string("find"))
            all.push_back(
                {act.name + (act.keys.isEmpty() ? QString() : "  " + act.keys.toString()), "action", act.go});
    }
    const auto& f = document_->findings();
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        for (const auto& figure : f.figures(stage)) {
            all.push_back({QString::fromStdString(worded(figure.name, wording_) + ": " +
                                                  jig::show(figure.kind, figure.value, wording_)),
                           QString("figure of %1").arg(kStages[s].said),
                           [this, stage] { show_stage(stage); }});
        }
        for (const auto& sentence : sentences_of(stage, document_->job(), document_->shop())) {
            for (const auto& piece : sentence) {
                if (const auto* word = std::get_if<Blank>(&piece)) {
                    all.push_back({"set " + word->name, QString("choice of %1").arg(kStages[s].said),
                                   [this, path = QString::fromStdString(word->path)] { show_word(path); }});
                }
            }
        }
    }
    const auto layers = [&](const std::vector<Layer>& list, Stage stage) {
        for (std::size_t i = 0; i < list.size(); ++i) {
            all.push_back(
                {QString("layer %1: %2")
                     .arg(i + 1)
                     .arg(QString::fromStdString(list[i].kind == LayerKind::coupling ? "coupling coat"
                                                                                     : list[i].material)),
                 QString("layer of %1").arg(name_of(stage).said), [this, stage] { show_stage(stage); }});
        }
    };
    layers(document_->job().shell.layers, Stage::shell);
    layers(document_->job().part.layers, Stage::part);
    Shop::lists(document_->shop(), [&](std::string_view list, const auto& entries) {
        const auto kind =
            QString::fromUtf8(list.data(), static_cast<qsizetype>(list.size())).replace('_', ' ');
        for (const auto& e : entries) {
            const auto origin =
                std::string(said(e.origin.kind)) + (e.origin.note.empty() ? "" : ": " + e.origin.note);
            all.push_back({QString::fromStdString(e.name), kind,
                           [this, words = QString::fromStdString(e.name + ", " + origin)] { say(words); }});
        }
    });
    (new Palette(std::move(all), this))->open();
}

bool MainWindow::may_leave() {
    if (!document_->unsaved()) return true;
    QMessageBox box(QMessageBox::Question, "Jig Shell", "The job has changes that are not saved.",
                    QMessageBox::NoButton, this);
    auto* save = box.addButton("Save them", QMessageBox::AcceptRole);
    auto* drop = box.addButton("Throw them away", QMessageBox::DestructiveRole);
    box.addButton("Stay here", QMessageBox::RejectRole);
    box.exec();
    if (box.clickedButton() == drop) {
        document_->forget_autosave();
        return true;
    }
    if (box.clickedButton() != save) return false;
    findChild<QAction*>("act-save")->trigger();
    return !document_->unsaved();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!may_leave()) {
        event->ignore();
        return;
    }
    errand_.stop();
    document_->forget_autosave();
    event->accept();
}

}  // namespace jig::app
