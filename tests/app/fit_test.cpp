// No text is cut, whatever its size and units; everything has a name, a key and room to be hit.
#include <QAccessible>
#include <QHeaderView>
#include <QScrollBar>
#include <QTableWidget>

#include "app/slip/flow_layout.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

QString place_of(const QWidget* w) {
    QString out = w->metaObject()->className();
    for (; w != nullptr; w = w->parentWidget()) {
        if (!w->objectName().isEmpty()) return out + " in " + w->objectName();
    }
    return out;
}

/// Texts that have less room than they need and do not tell the whole on hover.
QStringList cut_texts(MainWindow& window) {
    QStringList out;
    const auto told = [](const QString& tip, const QString& text) {
        return !tip.isEmpty() && tip.contains(QString(text).remove(u'…').left(12));
    };
    for (auto* label : window.findChildren<QLabel*>()) {
        if (!label->isVisible() || label->text().isEmpty() || told(label->toolTip(), label->text())) continue;
        const bool fits = label->wordWrap() ? label->heightForWidth(label->width()) <= label->height() + 2
                                            : label->sizeHint().width() <= label->width() + 2;
        if (!fits) out << QString("%1: \"%2\"").arg(place_of(label), label->text().left(60));
    }
    for (auto* button : window.findChildren<QAbstractButton*>()) {
        if (!button->isVisible() || button->text().isEmpty()) continue;
        const int needs = button->fontMetrics().horizontalAdvance(QString(button->text()).replace("&&", "&"));
        const bool fits =
            needs <= button->width() + 2 && button->fontMetrics().height() <= button->height() + 2;
        if (!fits && !told(button->toolTip(), button->text()))
            out << QString("%1: \"%2\"").arg(place_of(button), button->text());
    }
    for (auto* words : window.findChildren<QWidget*>()) {
        const auto* line = dynamic_cast<const FlowLine*>(words);
        if (line == nullptr || !line->isVisible()) continue;
        for (int i = 0; i < line->layout()->count(); ++i) {
            const auto* word = dynamic_cast<const FlowWord*>(line->layout()->itemAt(i));
            if (word == nullptr) continue;
            const auto at = word->geometry();
            if (!line->rect().contains(at) || at.width() < word->sizeHint().width() ||
                at.height() < word->sizeHint().height())
                out << QString("%1: \"%2\"").arg(place_of(line), word->text());
        }
    }
    for (auto* table : window.findChildren<QTableWidget*>()) {
        if (!table->isVisible()) continue;
        for (int c = 0; c < table->columnCount(); ++c) {
            if (table->isColumnHidden(c)) continue;
            for (int r = 0; r < table->rowCount(); ++r) {
                const auto* item = table->item(r, c);
                if (item == nullptr || item->text().isEmpty() || told(item->toolTip(), item->text()))
                    continue;
                if (QFontMetrics(item->font()).horizontalAdvance(item->text()) > table->columnWidth(c) ||
                    QFontMetrics(item->font()).height() > table->rowHeight(r) + 2)
                    out << QString("%1 column %2: \"%3\"").arg(place_of(table)).arg(c).arg(item->text());
            }
        }
    }
    out.removeDuplicates();
    return out;
}

void walk_stages(Bench& b, const std::function<void(Stage)>& look) {
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        b.window.show_stage(static_cast<Stage>(s));
        QTest::qWait(20);
        look(static_cast<Stage>(s));
    }
}

}  // namespace

TEST_CASE("no text is cut at any size of text in either units") {
    for (const char* demo : {"cello-case", "pavilion-petal"}) {
        Bench b(demo);
        REQUIRE(tried(b.window.document()));
        for (const double scale : {1.0, 1.25, 2.0}) {
            for (const auto system : {UnitSystem::metric, UnitSystem::imperial}) {
                b.window.set_text(scale);
                b.window.set_wording({system, "¤"});
                walk_stages(b, [&](Stage stage) {
                    INFO(demo << " " << name_of(stage).key << " at " << scale
                              << (system == UnitSystem::metric ? " metric" : " imperial"));
                    // Laid out in turns of the loop, of which a laden machine makes few a second.
                    static_cast<void>(QTest::qWaitFor([&] { return cut_texts(b.window).isEmpty(); }, 10000));
                    CHECK(cut_texts(b.window).join("\n").toStdString() == "");
                });
            }
        }
        b.window.set_text(1);
    }
}

TEST_CASE("the window asks for no more than a small screen has, at twice the usual text too") {
    Bench b;
    for (const double scale : {1.0, 2.0}) {
        b.window.set_text(scale);
        QTest::qWait(20);
        INFO(scale);
        CHECK(b.window.minimumSizeHint().width() <= 1280);
        CHECK(b.window.minimumSizeHint().height() <= 760);
        CHECK(b.window.width() == 1280);
    }
    b.window.set_text(1);
}

TEST_CASE("a reader of screens says a sentence with what its words are now") {
    Bench b;
    b.window.show_stage(Stage::edge);
    const auto said = [&] {
        QStringList out;
        for (auto* w : b.window.slip().findChildren<QWidget*>()) {
            if (dynamic_cast<FlowLine*>(w) == nullptr) continue;
            out << QAccessible::queryAccessibleInterface(w)->text(QAccessible::Name);
        }
        return out.join('\n');
    };
    CHECK(said().contains("goes on 15.0 mm, then"));
    b.type("/edge/trim", "31 mm");
    QTest::qWait(20);
    CHECK(said().contains("goes on 31.0 mm, then"));
    CHECK(!said().contains("goes on 15.0 mm, then"));
}

TEST_CASE("all that takes the keys has a name, and all that is hit has room") {
    Bench b;
    walk_stages(b, [&](Stage stage) {
        for (auto* w : b.window.findChildren<QWidget*>()) {
            if (!w->isVisible() || (w->focusPolicy() & Qt::TabFocus) == 0) continue;
            // Scroll areas hand the keys on to what lies in them.
            if (qobject_cast<QScrollArea*>(w) != nullptr) continue;
            auto* face = QAccessible::queryAccessibleInterface(w);
            REQUIRE(face != nullptr);
            INFO(name_of(stage).key << ": " << place_of(w).toStdString());
            CHECK_FALSE(face->text(QAccessible::Name).isEmpty());
        }
        for (auto* button : b.window.findChildren<QAbstractButton*>()) {
            if (!button->isVisible() || button->focusPolicy() == Qt::NoFocus) continue;
            INFO(name_of(stage).key << ": " << button->text().toStdString());
            // Words stand in a line of text; all else has its 24 pixels.
            CHECK(button->height() >= (button->objectName() == "word" ? 18 : 24));
        }
    });
}

TEST_CASE("every area is reached by F6, stages by number, text grows and shrinks by key") {
    Bench b;
    std::set<const QWidget*> areas;
    for (int i = 0; i < 8; ++i) {
        b.key(Qt::Key_F6, Qt::NoModifier);
        auto* focus = QApplication::focusWidget();
        REQUIRE(focus != nullptr);
        for (const QWidget* area :
             {static_cast<QWidget*>(&b.window.job_card()), static_cast<QWidget*>(&b.window.stand()),
              static_cast<QWidget*>(&b.window.slip()), static_cast<QWidget*>(&b.window.ribbon())}) {
            if (area == focus || area->isAncestorOf(focus)) areas.insert(area);
        }
    }
    CHECK(areas.size() == 4);
    for (int n = 0; n < 9; ++n) {
        b.key(static_cast<Qt::Key>(Qt::Key_1 + n), Qt::ControlModifier);
        CHECK(b.window.stage() == static_cast<Stage>(n));
    }
    b.key(Qt::Key_PageDown, Qt::ControlModifier);
    CHECK(b.window.stage() == static_cast<Stage>(9));
    b.key(Qt::Key_PageUp, Qt::ControlModifier);
    CHECK(b.window.stage() == static_cast<Stage>(8));
    b.key(Qt::Key_Plus, Qt::ControlModifier);
    CHECK(text_scale() == Approx(1.125));
    b.key(Qt::Key_0, Qt::ControlModifier);
    CHECK(text_scale() == Approx(1));
    b.key(Qt::Key_F11, Qt::NoModifier);
    CHECK(b.window.isFullScreen());
    b.key(Qt::Key_F11, Qt::NoModifier);
    CHECK_FALSE(b.window.isFullScreen());
}

TEST_CASE("the stand is looked at from its sides by key, and split and fittings move by key, a step each") {
    Bench b;
    auto& stand = b.window.stand();
    b.window.show_stage(Stage::shape);
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_1);
    CHECK(stand.camera().eye().z() > stand.camera().target.z() + 0.9 * stand.camera().distance);
    QTest::keyClick(&stand, Qt::Key_2);
    CHECK(stand.camera().eye().y() < stand.camera().target.y() - 0.9 * stand.camera().distance);
    QTest::keyClick(&stand, Qt::Key_3);
    CHECK(std::abs(stand.camera().eye().x() - stand.camera().target.x()) > 0.9 * stand.camera().distance);
    // From every side the whole thing lies in the view.
    for (const auto view : {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4}) {
        QTest::keyClick(&stand, view);
        const auto& box = stand.scene().bounds;
        for (int corner = 0; corner < 8; ++corner) {
            const Point at(((corner & 1) != 0 ? box.high : box.low).x(),
                           ((corner & 2) != 0 ? box.high : box.low).y(),
                           ((corner & 4) != 0 ? box.high : box.low).z());
            CHECK(stand.rect().contains(
                Camera::project(stand.camera().matrix(stand.size()), at, stand.size()).toPoint()));
        }
    }
    b.window.show_stage(Stage::edge);
    b.settle();
    REQUIRE_FALSE(stand.scene().marks.empty());
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_N);
    for (int i = 0; i < 4; ++i) QTest::keyPress(&stand, Qt::Key_BracketRight);
    QTest::keyRelease(&stand, Qt::Key_BracketRight);
    b.settle();
    CHECK(b.window.document().undo_name() == "move a fitting");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().undo_name().isEmpty());
    QTest::keyClick(&stand, Qt::Key_Question);
    auto* handbook = b.window.findChild<QWidget*>("handbook");
    REQUIRE(handbook != nullptr);
    CHECK(handbook->isVisible());
    handbook->close();
}
