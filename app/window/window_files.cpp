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
#include <QTextBrowser>
#include <QUrl>
#include <thread>

#include "app/print/sheets.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "core/job/tables.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/nest/slab_sheets.hpp"

namespace jig::app {
namespace {

QString message_of(const InputError& e) {
    return QString::fromStdString(e.where() + ": " + e.problem() + ". To mend it: " + e.mend() + ".");
}

}  // namespace

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

bool MainWindow::print_to(const QString& path, QPageSize::PageSizeId page) {
    try {
        document_->wait_evaluated(20000);
        SheetOptions options;
        options.page = page;
        options.wording = wording_;
        print_sheets(document_->job(), document_->findings(), path, options);
        say("Printed: " + path);
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

bool MainWindow::export_to(const QString& what, const QString& path) {
    try {
        document_->wait_evaluated(20000);
        const auto& f = document_->findings();
        if (what == "materials" || what == "days") {
            if (!f.run)
                throw InputError("run", "there is no run to export", "mend the stops on the job card first");
            write_atomically(what == "days" ? days_csv(f) : materials_csv(f), path.toStdString());
        } else if (what == "section") {
            write_section_svg(document_->job(), f, stage_, path, wording_);
        } else if (what == "slabs") {
            print_slabs(f, path, wording_);
        } else if (what == "shape") {
            if (!f.shape)
                throw InputError("shape", "there is no shape to export",
                                 "mend the stops on the job card first");
            write_atomically(write_stl_binary(f.shape->mesh), path.toStdString());
        } else if (what == "sheets") {
            if (!f.plug)
                throw InputError("plug", "there are no slabs to export",
                                 "mend the stops on the job card first");
            SheetRules rules;
            rules.length = f.plug->board.sheet_length;
            rules.width = f.plug->board.sheet_width;
            rules.margin = document_->job().plug.margin;
            Progress quiet;
            const auto sheets = lay_onto_sheets(f.plug->stack, rules, quiet);
            if (sheets.sheets.empty())
                throw InputError("plug", "no slab goes onto one sheet of this stock", "choose larger stock");
            const auto base = QFileInfo(path).path() + "/" + QFileInfo(path).completeBaseName();
            for (std::size_t i = 0; i < sheets.sheets.size(); ++i) {
                const auto name = QString("%1-%2").arg(base).arg(i + 1);
                write_sheet_dxf(sheets, i, (name + ".dxf").toStdString());
                write_atomically(sheet_svg(sheets, i), (name + ".svg").toStdString());
            }
            say(QString("%1 sheets written%2")
                    .arg(sheets.sheets.size())
                    .arg(sheets.too_large.empty()
                             ? QString()
                             : QString(", %1 slabs are larger than a sheet").arg(sheets.too_large.size())));
            return true;
        }
        say("Written: " + path);
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

void MainWindow::bring_in_mesh(const QString& path) {
    if (reading_) return say("A mesh is being read already: stop it first.");
    reading_ = std::make_shared<Progress>([this](double fraction, std::string_view doing) {
        const auto words = QString::fromUtf8(doing.data(), static_cast<qsizetype>(doing.size()));
        QMetaObject::invokeMethod(
            this,
            [this, fraction, words] {
                progress_->setValue(static_cast<int>(100 * fraction));
                message_->setText(words);
            },
            Qt::QueuedConnection);
    });
    progress_->show();
    stop_->show();
    const double unit = length_unit(std::string(file_word(document_->job().shape.unit)));
    const auto done = [this](const QString& message) {
        QMetaObject::invokeMethod(
            this,
            [this, message] {
                reading_.reset();
                progress_->hide();
                stop_->hide();
                say(message);
            },
            Qt::QueuedConnection);
    };
    // The mesh is proved sound on the side first, so that a bad file changes nothing in the job.
    std::thread([this, path, unit, progress = reading_, done] {
        try {
            const auto name = QFileInfo(path).fileName();
            auto bytes = std::make_shared<const std::string>(read_file(path.toStdString()));
            const auto mesh = repaired(read_stl(*bytes, name.toStdString(), unit, *progress), *progress);
            QMetaObject::invokeMethod(
                this,
                [this, name, bytes] {
                    auto job = document_->job();
                    job.shape.kind = ShapeKind::mesh;
                    job.shape.file = name.toStdString();
                    job.attachments = {{name.toStdString(), bytes}};
                    framed_ = false;
                    document_->replace("bring in " + name, std::move(job));
                    show_stage(Stage::shape);
                },
                Qt::QueuedConnection);
            QString mended;
            for (const auto& r : mesh.repairs)
                mended += QString(", %1 %2").arg(r.count).arg(QString::fromStdString(r.what));
            done(QString("%1: %2 triangles%3").arg(name).arg(mesh.mesh.triangles.size()).arg(mended));
        } catch (const InputError& e) {
            done(message_of(e));
        } catch (const Cancelled&) {
            done("Stopped: the job is as it was.");
        } catch (const std::exception& e) {
            done(QString("The mesh could not be read: ") + e.what());
        }
    }).detach();
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
                                   [this, stage, path = QString::fromStdString(word->path)] {
                                       show_stage(stage);
                                       slip_->open_word(path);
                                   }});
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
    if (reading_) reading_->stop();
    document_->forget_autosave();
    event->accept();
}

}  // namespace jig::app
