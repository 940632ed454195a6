// jigshell: the window, or with --print and --shot one file and out.
#include <QApplication>
#include <QCommandLineParser>
#include <QIcon>
#include <QTimer>

#include <cstdio>

#include "app/print/sheets.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "core/stages/back/trial.hpp"

namespace {

using namespace jig;
using namespace jig::app;

int fail(const InputError& e) {
    std::fprintf(stderr, "error: %s\n", e.what());
    return 2;
}

/// The shop's own lists are those of `library`, or of its usual folder.
Shop shop_here(const QString& library = {}) {
    return load_shop(data_folder().toStdString() + "/library",
                     (library.isEmpty() ? own_library() : library).toStdString());
}

int print_only(const QString& job_path, const QString& pdf, const QString& page, const QString& library) {
    const auto job = load_job(job_path.toStdString());
    Progress progress;
    const auto findings = evaluate(job, shop_here(library), progress);
    SheetOptions options;
    options.page = page.compare("letter", Qt::CaseInsensitive) == 0 ? QPageSize::Letter : QPageSize::A4;
    app::print_sheets(job, findings, pdf, options);
    return 0;
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setApplicationName("jigshell");
    QApplication::setApplicationDisplayName("Jig Shell");
    QApplication::setOrganizationName("jigshell");
    QApplication::setDesktopFileName("jigshell");
    QCommandLineParser line;
    line.setApplicationDescription("Plans composite tooling: plugs and moulds for sandwich parts.");
    line.addHelpOption();
    line.addPositionalArgument("job", "A *.jigshell file to open.", "[job]");
    line.addOption({"demo",
                    "Start with a demo job: cello-case, cello-case-whole, radar-dome or pavilion-petal.",
                    "name",
                    {}});
    line.addOption({"print", "Print the job's sheets to a PDF and leave.", "pdf"});
    line.addOption({"page", "A4 or Letter, with --print.", "size", "A4"});
    line.addOption({"library", "A folder with the shop's own lists in place of the usual one.", "folder"});
    line.addOption({"shot", "Write a picture of the window and leave.", "png"});
    line.addOption({"stage", "Stage to start with.", "stage", "brief"});
    line.addOption({"size", "Size of the window, as 1280x800.", "size", "1280x800"});
    line.addOption({"sheet", "Open a sheet: routes, schools or stacks, with --shot.", "sheet"});
    line.addOption({"load", "Show the tool under a load case, with --shot.", "case"});
    line.addOption({"night", "Use the night inks."});
    line.addOption({"imperial", "Use imperial units."});
    line.process(application);
    try {
        load_fonts(data_folder() + "/fonts");
        QApplication::setFont(word_font());
        if (line.isSet("print")) {
            if (line.positionalArguments().isEmpty())
                throw InputError("--print", "no job file is named", "name one after it");
            return print_only(line.positionalArguments().front(), line.value("print"), line.value("page"),
                              line.value("library"));
        }
        QApplication::setWindowIcon(QIcon(data_folder() + "/icons/jigshell.svg"));
        const bool shot = line.isSet("shot");
        MainWindow window(shop_here(line.value("library")), shot ? QString() : recovery_folder());
        const auto size = line.value("size").split('x');
        if (size.size() == 2) window.resize(size[0].toInt(), size[1].toInt());
        if (line.isSet("night")) window.set_light(Light::night);
        if (line.isSet("imperial")) window.set_wording({UnitSystem::imperial, window.wording().currency});
        if (!line.positionalArguments().isEmpty()) {
            window.open_job(line.positionalArguments().front());
        } else if (line.isSet("demo")) {
            window.document().start(
                load_job((data_folder() + "/demo/" + line.value("demo") + ".json").toStdString()), {});
        } else {
            window.document().start(Job{}, {});
        }
        for (std::size_t s = 0; s < kStages.size(); ++s) {
            if (line.value("stage") == kStages[s].key) window.show_stage(static_cast<Stage>(s));
        }
        window.show();
        if (shot) {
            window.document().wait_evaluated(60000);
            window.document().wait_tried(60000);
            const auto sheet = line.value("sheet");
            if ((sheet == "routes" && window.set_side_by_side()) ||
                (sheet == "schools" && window.set_schools_side_by_side()) ||
                (sheet == "stacks" && window.seek_stack())) {
                while (window.errand().away()) QApplication::processEvents(QEventLoop::AllEvents, 50);
            }
            for (std::size_t i = 0; i < Words<LoadCase>::all.size(); ++i) {
                if (line.value("load").toStdString() == Words<LoadCase>::all[i].file)
                    window.show_load(static_cast<LoadCase>(i));
            }
            // Two turns of the loop: one to lay out, one for OpenGL's first picture.
            QTimer::singleShot(400, &window, [&] {
                window.stand().frame_all();
                QApplication::processEvents();
                const bool written = window.grab().save(line.value("shot"));
                QApplication::exit(written ? 0 : 2);
            });
        } else {
            window.offer_leftovers();
        }
        return QApplication::exec();
    } catch (const InputError& e) {
        return fail(e);
    }
}
