// The newcomer's way, by keys alone: from the start with an own shape to printed sheets.
#include <QElapsedTimer>
#include <QFileDialog>
#include <QTimer>

#include "app/print/preview.hpp"
#include "core/job/job_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/shapes.hpp"

using namespace bench;

namespace {

/// Types a file's name into the dialog that is about to open, as hands would.
struct Typist {
    int keys = 0;
    bool met = false;
    void will_name(const QString& file) {
        met = false;
        QTimer::singleShot(400, [this, file] {
            auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
            if (dialog == nullptr) return;
            auto* field = dialog->findChild<QLineEdit*>("fileNameEdit");
            if (field == nullptr) return;
            met = true;
            field->setFocus();
            field->selectAll();
            QTest::keyClicks(field, file);
            keys += static_cast<int>(file.size()) + 1;
            QTest::keyClick(field, Qt::Key_Return);
        });
    }
};

}  // namespace

TEST_CASE("an own shape becomes printed sheets by keys alone, with no stop on the way") {
    QTemporaryDir folder;
    const auto shape = folder.filePath("own.stl"), pdf = folder.filePath("own.pdf");
    write_atomically(write_stl_binary(shapes::frustum(0.30, 0.16, radians(6), 120)), shape.toStdString());
    MainWindow window(load_shop(data_folder().toStdString() + "/library"), folder.filePath("recovery"));
    window.set_wording({UnitSystem::metric, "¤"});
    window.resize(1280, 800);
    window.show_start();
    window.show();
    REQUIRE(QTest::qWaitForWindowExposed(&window));
    QApplication::setActiveWindow(&window);
    QElapsedTimer clock;
    clock.start();
    Typist typist;
    const auto key = [&](QWidget* to, Qt::Key k, Qt::KeyboardModifiers with = Qt::NoModifier) {
        QApplication::setActiveWindow(to->window());
        QTest::keyClick(to, k, with);
        ++typist.keys;
    };
    typist.will_name(shape);
    key(&window, Qt::Key_I, Qt::ControlModifier);
    REQUIRE(typist.met);
    REQUIRE(QTest::qWaitFor([&] { return !window.errand().away(); }, 60000));
    REQUIRE(window.document().wait_evaluated(90000));
    CHECK_FALSE(window.is_at_start());
    CHECK(window.document().job().shape.kind == ShapeKind::mesh);
    // Through all stages, each looked at.
    for (std::size_t s = 0; s < kStages.size(); ++s) key(&window, Qt::Key_PageUp, Qt::ControlModifier);
    for (std::size_t s = 0; s + 1 < kStages.size(); ++s) {
        CHECK(window.stage() == static_cast<Stage>(s));
        key(&window, Qt::Key_PageDown, Qt::ControlModifier);
        REQUIRE(window.document().wait_evaluated(90000));
    }
    CHECK(window.stage() == Stage::log);
    CHECK(window.document().looked_at().size() == kStages.size());
    for (const auto& call : window.document().findings().calls) {
        INFO(call.key << ": " << call.headline);
        CHECK(call.severity != Severity::stop);
    }
    key(&window, Qt::Key_P, Qt::ControlModifier);
    REQUIRE(QTest::qWaitFor([&] { return window.findChild<PrintPreview*>("preview") != nullptr; }, 90000));
    auto* preview = window.findChild<PrintPreview*>("preview");
    REQUIRE(QTest::qWaitForWindowExposed(preview));
    typist.will_name(pdf);
    auto* button = preview->findChild<QPushButton*>("preview-pdf");
    button->setFocus();
    key(button, Qt::Key_Space);
    REQUIRE(typist.met);
    REQUIRE(QTest::qWaitFor([&] { return !window.errand().away(); }, 90000));
    REQUIRE(QFile::exists(pdf));
    const auto text = text_of_pdf(pdf);
    CHECK(text.contains("Day plan"));
    CHECK(text.contains("Surface schedule"));
    key(preview, Qt::Key_Escape);
    WARN("own shape to printed sheets: " << typist.keys << " keys, "
                                         << static_cast<double>(clock.elapsed()) / 1000 << " s");
}
