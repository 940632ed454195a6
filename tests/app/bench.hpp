// A window with the demo on the bench, and hands to work it with.
#pragma once

#include <catch2/catch.hpp>
#include <QAction>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QProcess>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTest>
#include <QToolButton>
#include <set>

#include "app/slip/call_row.hpp"
#include "app/slip/editor.hpp"
#include "app/slip/figures_view.hpp"
#include "app/slip/record_table.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/quiet.hpp"

namespace bench {

using namespace jig;
using namespace jig::app;

/// Whether a picture shows something: many places differ from its corner, in several colours.
inline bool shows_something(const QImage& picture) {
    const auto ground = picture.isNull() ? QRgb() : picture.pixel(2, 2);
    std::set<QRgb> colours;
    int other = 0;
    for (int y = 0; y < picture.height(); y += 3) {
        for (int x = 0; x < picture.width(); x += 3) {
            other += picture.pixel(x, y) != ground;
            colours.insert(picture.pixel(x, y));
        }
    }
    return other > 100 && colours.size() > 8;
}

/// What a PDF says, and what it says about itself.
inline QString text_of_pdf(const QString& pdf, QString* info = nullptr) {
    QProcess reader;
    reader.start("pdftotext", {"-layout", pdf, "-"});
    REQUIRE(reader.waitForFinished(20000));
    REQUIRE(reader.exitCode() == 0);
    if (info != nullptr) {
        QProcess about;
        about.start("pdfinfo", {pdf});
        REQUIRE(about.waitForFinished(20000));
        *info = QString::fromUtf8(about.readAllStandardOutput());
    }
    return QString::fromUtf8(reader.readAllStandardOutput());
}

/// A text without its blanks, since a narrow column breaks at them.
inline QString run_together(QString text) {
    return text.removeIf([](QChar c) { return c.isSpace(); });
}

/// Has tool and part tried out, which a bench leaves alone until it is asked, and waits for it.
inline bool tried(Document& document) {
    document.try_by_itself(true);
    return document.wait_tried(120000);
}

/// Takes hold of the stand at a place and moves it by so much, as a hand does.
inline void drag(Stand& stand, const QPointF& from, const QPointF& by) {
    auto* canvas = stand.findChild<QWidget*>("canvas");
    QTest::mousePress(canvas, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 5; ++i) {
        const auto at = (from + by * i / 5.0).toPoint();
        QMouseEvent move(QEvent::MouseMove, at, canvas->mapToGlobal(QPointF(at)), Qt::NoButton,
                         Qt::LeftButton, {});
        QApplication::sendEvent(canvas, &move);
        QTest::qWait(5);
    }
    QTest::mouseRelease(canvas, Qt::LeftButton, {}, (from + by).toPoint());
}

/// The board of all benches of a run: what one has worked out, the next ones find there.
inline const std::shared_ptr<JobBoard>& warm() {
    static const auto board = std::make_shared<JobBoard>(24);
    return board;
}

struct Bench {
    QTemporaryDir folder;
    MainWindow window;
    /// Where a test is about figures that are still on their way, on a board of its own.
    explicit Bench(const QString& demo = "cello-case", const std::shared_ptr<JobBoard>& board = warm())
        : window(load_shop(data_folder().toStdString() + "/library"), folder.path() + "/recovery", board) {
        window.set_wording({UnitSystem::metric, "¤"});
        window.set_light(Light::day);
        window.set_text(1);
        // Trials take both cores for longer than most tests last.
        window.document().try_by_itself(false);
        window.document().start(load_job((data_folder() + "/demo/" + demo + ".json").toStdString()), {});
        window.resize(1280, 800);
        window.show();
        REQUIRE(QTest::qWaitForWindowExposed(&window));
        // Xvfb has no window manager that would make it the active window, and shortcuts ask for that.
        QApplication::setActiveWindow(&window);
        settle();
    }
    void settle() {
        REQUIRE(window.document().wait_evaluated(90000));
        QTest::qWait(20);
        REQUIRE(QTest::qWaitFor([&] { return !window.is_drawing(); }, 30000));
    }
    [[nodiscard]] QString file(const QString& name) const { return folder.path() + "/" + name; }
    /// What was written out under that name, read as a stranger's mesh.
    [[nodiscard]] TriangleMesh mesh(const QString& name) const {
        return read_mesh(read_file(file(name).toStdString()), name.toStdString(), {}, quiet);
    }
    /// The word of the slip that edits this path.
    QToolButton* word(const QString& path) {
        for (auto* b : window.slip().findChildren<QToolButton*>("word")) {
            if (b->property("path").toString() == path && b->isVisible()) return b;
        }
        FAIL("no word for " << path.toStdString());
        return nullptr;
    }
    Editor* editor() {
        QTest::qWait(10);
        for (auto* w : window.findChildren<Editor*>()) {
            if (w->isVisible()) return w;
        }
        FAIL("no editor is open");
        return nullptr;
    }
    /// Clicks a word, types into its field and presses Enter.
    void type(const QString& path, const QString& text) {
        QTest::mouseClick(word(path), Qt::LeftButton);
        auto* field = editor()->findChild<QLineEdit*>("field");
        REQUIRE(field != nullptr);
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        settle();
    }
    void choose(const QString& path, const QString& option) {
        QTest::mouseClick(word(path), Qt::LeftButton);
        auto* list = editor()->findChild<QListWidget*>("list");
        REQUIRE(list != nullptr);
        const auto found = list->findItems(option, Qt::MatchExactly);
        REQUIRE(found.size() == 1);
        list->setCurrentItem(found.front());
        QTest::keyClick(list, Qt::Key_Return);
        settle();
    }
    QString figure(const QString& key) {
        for (auto* label : window.slip().findChildren<QLabel*>("figure-" + key)) {
            if (label->isVisibleTo(&window)) return label->text();
        }
        return {};
    }
    template <class W>
    W* visible(const QString& name) {
        for (auto* w : window.findChildren<W*>(name)) {
            if (w->isVisibleTo(&window)) return w;
        }
        FAIL("nothing visible named " << name.toStdString());
        return nullptr;
    }
    RecordTable* table(const char* name) { return visible<RecordTable>(name); }
    QString cell(const char* name, int row, int column) { return table(name)->item(row, column)->text(); }
    void press(const char* name) {
        auto* button = visible<QPushButton>(name);
        window.slip().ensureWidgetVisible(button);
        QTest::mouseClick(button, Qt::LeftButton);
        settle();
    }
    /// Types into a cell as hands do: choose it, type, Enter.
    void type_cell(const char* name, int row, int column, const QString& text) {
        auto* t = table(name);
        window.slip().ensureWidgetVisible(t);
        t->setFocus();
        t->setCurrentCell(row, column);
        QTest::keyClick(t, Qt::Key_F2);
        auto* field = t->findChild<QLineEdit*>();
        REQUIRE(field != nullptr);
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        // A table takes what was typed when its turn comes.
        QTest::qWait(10);
        settle();
    }
    /// Opens the list in a cell and chooses from it by keys.
    void choose_in_cell(const char* name, int row, int column, const QString& what) {
        auto* t = table(name);
        window.slip().ensureWidgetVisible(t);
        t->setFocus();
        t->setCurrentCell(row, column);
        QTest::keyClick(t, Qt::Key_F2);
        auto* list = t->findChild<QComboBox*>();
        REQUIRE(list != nullptr);
        const int at = list->findText(what);
        REQUIRE(at >= 0);
        auto* view = list->view();
        QTest::keyClick(view, Qt::Key_Home);
        for (int i = 0; i < at; ++i) QTest::keyClick(view, Qt::Key_Down);
        QTest::keyClick(view, Qt::Key_Return);
        QTest::qWait(10);
        settle();
    }
    CallRow* call_row(const QString& key) { return visible<CallRow>("call-row-" + key); }
    /// Opens a call by a click where it is shut, and clicks its way out.
    void fix(const QString& key) {
        auto* row = call_row(key);
        window.slip().ensureWidgetVisible(row);
        if (!row->is_open()) QTest::mouseClick(visible<QLabel>("call-" + key), Qt::LeftButton);
        REQUIRE(row->is_open());
        QTest::mouseClick(visible<QPushButton>("fix-" + key), Qt::LeftButton);
    }
    /// Sends an export off and waits for it; what the window says then.
    QString write_out(const std::string& export_key, const QString& path) {
        for (const auto& what : exports()) {
            if (what.key != export_key) continue;
            REQUIRE(window.write_out(what, path));
            REQUIRE(home());
            return message();
        }
        FAIL("no export " << export_key);
        return {};
    }
    /// Waits until the errand that is on its way has come home.
    bool home() {
        return QTest::qWaitFor([&] { return !window.errand().away(); }, 90000);
    }
    QString message() { return window.findChild<QLabel*>("message")->text(); }
    void key(Qt::Key key, Qt::KeyboardModifiers with) {
        QApplication::setActiveWindow(&window);
        QTest::keyClick(&window, key, with);
        settle();
    }
};

}  // namespace bench
