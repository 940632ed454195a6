// jigshell: the window, or with --print and --shot one file and out.
#include <QCommandLineParser>
#include <QFileInfo>
#include <QIcon>
#include <QTimer>

#include <cstdio>

#include "app/print/sheets.hpp"
#include "app/window/application.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "app/window/settings.hpp"
#include "core/stages/back/trial.hpp"

namespace {

using namespace jig;
using namespace jig::app;

int fail(const InputError& e) {
    std::fprintf(stderr, "error: %s\n", e.what());
    return 2;
}

Shop shop_here(std::vector<InputError>* left_out = nullptr) {
    return load_shop(data_folder().toStdString() + "/library", own_library().toStdString(), left_out);
}

/// What was left out of the shop's own library, in one message; empty where nothing was.
QString words_for(const std::vector<InputError>& left_out) {
    QStringList all;
    for (const auto& e : left_out) all << message_of(e);
    return all.isEmpty() ? QString() : "Your own list is left out, the shipped one serves. " + all.join(" ");
}

int print_only(const QString& job_path, const QString& pdf, const QString& page) {
    const auto job = load_job(job_path.toStdString());
    Progress progress;
    const auto findings = evaluate(job, shop_here(), progress);
    SheetOptions options;
    options.page = page.compare("letter", Qt::CaseInsensitive) == 0 ? QPageSize::Letter : QPageSize::A4;
    app::print_sheets(job, findings, pdf, options);
    return 0;
}

}  // namespace

int main(int argc, char** argv) {
    Application application(argc, argv);
    QApplication::setApplicationName("jigshell");
    QApplication::setApplicationDisplayName("Jig Shell");
    QApplication::setOrganizationName("jigshell");
    QApplication::setDesktopFileName("jigshell");
    QCommandLineParser line;
    line.setApplicationDescription("Plans composite tooling: plugs and moulds for sandwich parts.");
    line.addHelpOption();
    line.addPositionalArgument("file", "A job to open, or a shape or an outline for a new one.", "[file]");
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
    line.addOption(
        {"sheet", "Open a sheet: routes, schools, stacks, builds, kit or shop, or Heat's tool, with --shot.",
         "sheet"});
    line.addOption({"load",
                    "Show the tool under a load case, or the part under a load by its number, with --shot.",
                    "case"});
    line.addOption({"text", "Size of text in percent, 80 to 200.", "percent"});
    line.addOption({"walk", "Begin the first walk."});
    line.addOption({"night", "Use the night inks."});
    line.addOption({"imperial", "Use imperial units."});
    line.process(application);
    take_library(line.value("library"));
    try {
        load_fonts(data_folder() + "/fonts");
        set_text_scale(kept_text_scale());  // reads the system's own face before ours takes its place
        QApplication::setFont(word_font());
        if (line.isSet("print")) {
            if (line.positionalArguments().isEmpty())
                throw InputError("--print", "no job file is named", "name one after it");
            return print_only(line.positionalArguments().front(), line.value("print"), line.value("page"));
        }
        QApplication::setWindowIcon(QIcon(data_folder() + "/icons/jigshell.svg"));
        const bool shot = line.isSet("shot");
        std::vector<InputError> left_out;
        MainWindow window(shop_here(&left_out), shot ? QString() : recovery_folder());
        application.on_failure([&window](const QString& words) {
            window.document().autosave_now();
            window.say("That failed: " + words + ". Your work has been kept; save it under another name.");
        });
        const auto size = line.value("size").split('x');
        if (size.size() == 2 && (shot || line.isSet("size"))) window.resize(size[0].toInt(), size[1].toInt());
        if (line.isSet("text")) window.set_text(line.value("text").toDouble() / 100);
        if (line.isSet("night")) window.set_light(Light::night);
        if (line.isSet("imperial")) window.set_wording({UnitSystem::imperial, window.wording().currency});
        window.show_start();
        const auto named = line.positionalArguments();
        if (!named.isEmpty()) {
            if (QFileInfo::exists(named.front()))
                window.open_any(named.front());
            else
                window.say(QString("%1: there is no such file.").arg(named.front()));
        } else if (line.isSet("demo")) {
            window.start_job(
                load_job((data_folder() + "/demo/" + line.value("demo") + ".json").toStdString()));
        }
        QStringList stages;
        for (const auto& stage : kStages) stages << stage.key;
        const auto which = stages.indexOf(line.value("stage").toLower());
        if (which >= 0 && line.isSet("stage")) window.show_stage(static_cast<Stage>(which));
        window.show();
        if (which < 0)
            window.say(QString("--stage %1: there is no such stage; it is one of %2.")
                           .arg(line.value("stage"), stages.join(", ")));
        if (const auto words = words_for(left_out); !words.isEmpty()) window.say(words);
        if (shot) {
            window.document().wait_evaluated(60000);
            window.document().wait_tried(60000);
            const auto sheet = line.value("sheet");
            if ((sheet == "routes" && window.set_side_by_side()) ||
                (sheet == "schools" && window.set_schools_side_by_side()) ||
                (sheet == "stacks" && window.seek_stack()) ||
                (sheet == "builds" && window.set_builds_side_by_side()) ||
                (sheet == "kit" && window.lay_kit()) || (sheet == "shop" && window.open_shop())) {
                while (window.errand().away()) QApplication::processEvents(QEventLoop::AllEvents, 50);
            }
            window.show_heat_tool(sheet == "tool");
            if (const auto number = line.value("load").toUInt(); number > 0)
                window.show_part_load(number - 1);
            for (std::size_t i = 0; i < Words<LoadCase>::all.size(); ++i) {
                if (line.value("load").toStdString() == Words<LoadCase>::all[i].file)
                    window.show_load(static_cast<LoadCase>(i));
            }
            // Two turns of the loop: one to lay out, one for OpenGL's first picture.
            QTimer::singleShot(400, &window, [&] {
                while (window.is_drawing()) QApplication::processEvents(QEventLoop::AllEvents, 50);
                window.stand().frame_all();
                QApplication::processEvents();
                const bool written = window.grab().save(line.value("shot"));
                QApplication::exit(written ? 0 : 2);
            });
        } else {
            window.offer_leftovers();
        }
        if (line.isSet("walk")) window.begin_walk();
        return QApplication::exec();
    } catch (const InputError& e) {
        return fail(e);
    }
}
