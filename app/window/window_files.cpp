// Files in and out of the window, and what it asks before it leaves.
#include <QCloseEvent>
#include <QDate>
#include <QDesktopServices>
#include <QDir>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QMimeData>
#include <QRegularExpression>
#include <QSettings>
#include <QUrl>

#include "app/print/preview.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "app/window/settings.hpp"
#include "app/window/shop_sheet.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/back/suggest.hpp"
#include "core/stages/bag/measured.hpp"
#include "core/stages/shape/tray.hpp"

namespace jig::app {
void MainWindow::start_job(Job job) {
    framed_ = false;
    say("");
    document_->start(std::move(job), {});
    show_bench();
}

bool MainWindow::open_job(const QString& path) {
    try {
        say("");
        framed_ = false;
        document_->open(path);
        if (!document_->path().isEmpty()) remember_job(document_->path());
        show_bench();
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

bool MainWindow::open_demo(const QString& name) {
    if (!may_leave()) return false;
    try {
        start_job(load_job((data_folder() + "/demo/" + name + ".json").toStdString()));
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

bool MainWindow::open_any(const QString& path) {
    const auto ending = QFileInfo(path).suffix().toLower();
    if (ending == "jigshell" || ending == "json") return may_leave() && open_job(path);
    const bool mesh = QStringList{"stl", "obj", "ply", "step", "stp"}.contains(ending);
    if (!mesh && !QStringList{"dxf", "svg"}.contains(ending)) {
        say(QString(
                "%1: this kind of file is not known here. Jobs are .jigshell, shapes STL, OBJ, PLY or STEP, "
                "outlines DXF or SVG.")
                .arg(QFileInfo(path).fileName()));
        return false;
    }
    if (is_at_start()) {
        if (!may_leave()) return false;
        start_job(fresh_job());
    }
    return mesh ? bring_in_mesh(path) : bring_in_outline(path);
}

void MainWindow::ask_job() {
    if (!may_leave()) return;
    const auto path =
        QFileDialog::getOpenFileName(this, "Open a job", last_folder(), "Jig Shell jobs (*.jigshell *.json)");
    if (!path.isEmpty()) open_job(path);
}

void MainWindow::ask_mesh() {
    const auto path = QFileDialog::getOpenFileName(
        this, "Bring in a shape", last_folder(),
        "Shapes (*.stl *.obj *.ply *.step *.stp *.STL *.OBJ *.PLY *.STEP *.STP)");
    if (path.isEmpty()) return;
    remember_folder(path);
    open_any(path);
}

void MainWindow::ask_outline() {
    const auto path = QFileDialog::getOpenFileName(this, "Bring in an outline", last_folder(),
                                                   "Drawings (*.dxf *.svg *.DXF *.SVG)");
    if (path.isEmpty()) return;
    remember_folder(path);
    open_any(path);
}

QString MainWindow::ask_name(const QString& title, const QString& filter, const QString& ending,
                             bool numbered, QString* chosen_filter) {
    QFileDialog dialog(this, title, last_folder(), filter);
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    // The dialog adds the ending before it asks whether the file may be written over; what is numbered is
    // asked for below, by the names that it really has.
    dialog.setDefaultSuffix(ending.mid(1));
    dialog.setOption(QFileDialog::DontConfirmOverwrite, numbered);
    auto name = QString::fromStdString(document_->job().brief.job);
    name.replace(QRegularExpression("[/\\\\\\s]+"), "-");
    if (document_->path().isEmpty() || ending != ".jigshell")
        dialog.selectFile(name + ending);
    else
        dialog.selectFile(document_->path());
    if (dialog.exec() != QDialog::Accepted || dialog.selectedFiles().isEmpty()) return {};
    const auto path = dialog.selectedFiles().front();
    remember_folder(path);
    if (chosen_filter != nullptr) *chosen_filter = dialog.selectedNameFilter();
    return path;
}

bool MainWindow::agreed(const QString& question, const QString& detail, const QString& yes) {
    QMessageBox box(QMessageBox::Question, "Jig Shell", question, QMessageBox::NoButton, this);
    box.setInformativeText(detail);
    auto* go = box.addButton(yes, QMessageBox::AcceptRole);
    box.setDefaultButton(box.addButton("Stay here", QMessageBox::RejectRole));
    box.exec();
    return box.clickedButton() == go;
}

void MainWindow::ask_export(const Export& what) {
    if (const auto why = what.why_not(document_->job(), document_->findings()); !why.isEmpty())
        return say(QString("%1 does not fit this job: %2.").arg(QString(what.act).remove(u'…'), why));
    QString chosen;
    const auto path =
        ask_name(QString(what.act).remove(u'…'), what.filter, what.suffix, what.numbered, &chosen);
    if (path.isEmpty()) return;
    if (what.numbered) {
        const auto there = in_the_way(what, path);
        if (!there.isEmpty() &&
            !agreed(QString("%1 files of these names are in %2 already. Write over them?")
                        .arg(there.size())
                        .arg(QFileInfo(path).path()),
                    there.mid(0, 6).join(", ") + (there.size() > 6 ? " …" : ""), "Write over them"))
            return;
    }
    write_out(what, path, tiles_by(chosen));
}

void MainWindow::open_preview() {
    if (const auto why = sheets_missing(document_->findings()); !why.isEmpty())
        return say(QString("No sheets yet: %1.").arg(why));
    // What is printed has been tried out on the fine mesh, as what is written has.
    send([this, job = document_->job(), shop = document_->shared_shop(), board = document_->board(),
          stage = stage_, wording = wording_](Progress& progress) -> Errand::Homecoming {
        auto findings = board->work_out(board->lay(job, shop), Depth::fine, progress);
        return [this, job, findings, stage, wording] {
            show_preview(new PrintPreview(job, findings, stage, wording, this));
            return QString();
        };
    });
}

void MainWindow::show_preview(PrintPreview* preview) {
    connect(preview, &PrintPreview::printed, this, &MainWindow::say);
    connect(preview, &PrintPreview::pdf_wanted, this, [this](const SheetOptions& options) {
        const auto path = ask_name("Write the sheets", "PDF (*.pdf)", ".pdf", false);
        if (path.isEmpty()) return;
        send([path, options, job = document_->job(), shop = document_->shared_shop(),
              board = document_->board()](Progress& progress) {
            const auto findings = board->work_out(board->lay(job, shop), Depth::fine, progress);
            print_sheets(job, findings, path, options);
            return [path] { return "Printed: " + path; };
        });
    });
    preview->show();
}

bool MainWindow::save() {
    return document_->path().isEmpty() ? save_as() : save_job(document_->path());
}

bool MainWindow::save_as() {
    const auto path = ask_name("Save the job", "Jig Shell jobs (*.jigshell)", ".jigshell", false);
    return !path.isEmpty() && save_job(path);
}

bool MainWindow::save_job(const QString& path) {
    try {
        const bool same = !document_->path().isEmpty() && real_file(path) == real_file(document_->path());
        const bool over = same && document_->changed_on_disk();
        if (over && !agreed(QString("%1 was changed by something else since you opened it.")
                                .arg(QFileInfo(path).fileName()),
                            "Writing over it loses that change; the file as it is now is kept as its ~ copy.",
                            "Write over it"))
            return false;
        document_->save(path, over);
        remember_job(path);
        say("Saved: " + path);
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

bool MainWindow::write_out(const Export& what, const QString& path,
                           std::optional<QPageSize::PageSizeId> tiles) {
    // Worked out on the side where the figures on screen are still being renewed, so that the file belongs to
    // the job as it is now.
    return send([write = what.write, path, job = document_->job(), shop = document_->shared_shop(),
                 board = document_->board(), stage = stage_, wording = wording_, tiles](Progress& progress) {
        const auto findings = board->work_out(board->lay(job, shop), Depth::fine, progress);
        const auto message = write({job, findings, *shop, stage, wording, path, tiles}, progress);
        return [message] { return message; };
    });
}

bool MainWindow::bring_in_mesh(const QString& path) {
    const auto& shape = document_->job().shape;
    const ReadRules rules{length_unit(std::string(file_word(shape.unit))), shape.chord};
    // The mesh is proved sound on the side first, so that a bad file changes nothing in the job.
    return send_for_job([this, path, rules, mend = shape.mend](Progress& progress) -> Errand::Homecoming {
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
    return send_for_job([this, path, unit](Progress& progress) -> Errand::Homecoming {
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

bool MainWindow::open_shop() {
    if (is_at_start()) {
        say("Begin or open a job first: the library stands beside it.");
        return false;
    }
    if (shop_sheet_ == nullptr) {
        shop_sheet_ = new ShopSheet(*document_, centre_);
        centre_->addWidget(shop_sheet_);
        connect(shop_sheet_, &ShopSheet::close_wanted, this, &MainWindow::close_sheet);
        connect(shop_sheet_, &ShopSheet::said, this, &MainWindow::say);
    }
    try {
        shop_sheet_->set_look(ink(light_), wording_);
        shop_sheet_->open();
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
    swap_->hide();
    centre_->setCurrentWidget(shop_sheet_);
    return true;
}

bool MainWindow::keep_measured() {
    try {
        const auto folder = own_library();
        // What was typed into the lists since they were read is not written over.
        auto shop = shop_on_disk();
        auto job = document_->job();
        const auto kept = bag::keep_measured(
            shop, infusion_shown(job),
            infused_shown(job) == Infused::shell ? bag::as_preform(job.shell, 0) : job.part,
            {OriginKind::measured, QDate::currentDate().toString("yyyy-MM").toStdString(),
             "fronts of " + job.brief.job});
        QDir().mkpath(folder);
        for (const auto* list : bag::kMeasuredLists)
            write_atomically(write_list(shop, list), folder.toStdString() + "/" + list + ".json");
        document_->set_shop(shop_on_disk());
        QStringList names;
        for (const auto& m : kept) names << QString::fromStdString(m.name);
        // Else the same would count twice.
        infusion_shown(job).lets = 1;
        document_->replace("keep what the front showed", std::move(job));
        say("Kept in your library as measured here, and this job goes by it: " + names.join(", ") + ".");
        return true;
    } catch (const InputError& e) {
        say(message_of(e));
        return false;
    }
}

bool MainWindow::offer_leftovers() {
    return offer_->look_into(document_->recovery());
}

void MainWindow::take_up(const Leftover& left) {
    // What is open is asked for first: it is never thrown away by taking up something else.
    if (!may_leave()) return;
    try {
        framed_ = false;
        document_->take_up(left);
        show_bench();
        show_stage(left.stage);
    } catch (const InputError& e) {
        say(message_of(e));
    }
    offer_leftovers();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList files;
    for (const auto& url : event->mimeData()->urls()) {
        if (url.isLocalFile()) files << url.toLocalFile();
    }
    if (files.isEmpty()) return say("Only files on this machine can be laid on the bench.");
    event->acceptProposedAction();
    if (files.size() == 1) {
        open_any(files.front());
        return;
    }
    std::vector<Findable> all;
    for (const auto& file : files)
        all.push_back({QFileInfo(file).fileName(), QFileInfo(file).path(), [this, file] { open_any(file); }});
    (new Palette(std::move(all), "several files were dropped: which one is meant?", 30, this))->open();
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
    return box.clickedButton() == save && this->save();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!may_leave()) {
        event->ignore();
        return;
    }
    errand_.stop();
    document_->forget_autosave();
    QSettings().setValue("geometry", saveGeometry());
    event->accept();
}

}  // namespace jig::app
