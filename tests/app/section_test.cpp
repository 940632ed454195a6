// The section against the stack it shows, its room and keys, the inks and the job card.
#include <QImage>
#include <QSettings>

#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"

using namespace bench;

namespace {

/// WCAG 2.1 contrast of two colours.
double contrast(const QColor& a, const QColor& b) {
    const auto light = [](const QColor& c) {
        const auto part = [](double v) {
            return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
        };
        return 0.2126 * part(static_cast<double>(c.redF())) + 0.7152 * part(static_cast<double>(c.greenF())) +
               0.0722 * part(static_cast<double>(c.blueF()));
    };
    const double x = light(a), y = light(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

}  // namespace

TEST_CASE("the section has the stack's layers in order, each as thick as it is") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    const auto& job = b.window.document().job();
    const auto& f = b.window.document().findings();
    const auto section = section_at_cut(job, f, Stage::shell);
    REQUIRE_FALSE(section.empty());
    CHECK(section.layers.front().hatch == Hatch::foam);
    std::vector<double> thickness;
    for (const auto& layer : section.layers) {
        if (layer.stage == Stage::shell && layer.thickness > 0) thickness.push_back(layer.thickness);
    }
    REQUIRE(thickness.size() == f.shell->stack.laid.size());
    double sum = 0;
    for (std::size_t i = 0; i < thickness.size(); ++i) {
        CHECK(thickness[i] == Approx(f.shell->stack.laid[i].ply.thickness));
        sum += thickness[i];
    }
    CHECK(sum == Approx(f.shell->stack.laminate.thickness));
    CHECK(section.stretch >= 1);
    // The tape lies in its land, on both sides.
    REQUIRE(section.tape.size() == 2);
    for (const auto& [from, to] : section.tape) CHECK(std::abs(to - from) == Approx(job.edge.tape_land));
}

TEST_CASE(
    "the part's section shows each zone's own stack where the cut goes through it, and no other there") {
    Bench b("pavilion-petal");
    b.window.show_stage(Stage::part);
    b.settle();
    const auto& job = b.window.document().job();
    const auto& f = b.window.document().findings();
    REQUIRE(job.part.zones.size() == 2);
    const auto section = section_at_cut(job, f, Stage::part);
    REQUIRE(section.part_in_tool);
    // The bolted rim has two plies in the core's place: no core comes within its width of the trim.
    Loops core, part;
    std::size_t layers = 0;
    for (const auto& layer : section.layers) {
        if (layer.stage != Stage::part || layer.thickness <= 0) continue;
        ++layers;
        part.insert(part.end(), layer.outline.begin(), layer.outline.end());
        if (layer.hatch == Hatch::core) core.insert(core.end(), layer.outline.begin(), layer.outline.end());
    }
    REQUIRE_FALSE(core.empty());
    CHECK(layers > f.part->stack.laid.size());
    const double rim = job.part.zones[0].width;
    // The rim goes up the face as it goes in: seen across it is narrower than it is wide.
    CHECK(low_corner(core).x() > low_corner(part).x() + 0.4 * rim);
    CHECK(high_corner(core).x() < high_corner(part).x() - 0.4 * rim);
    // With nothing but the common stack each of its layers is there once.
    auto plain = job;
    plain.part.zones.clear();
    const auto whole =
        section_at_cut(plain, evaluate(plain, b.window.document().shop(), quiet, Depth::stages), Stage::part);
    std::size_t once = 0;
    for (const auto& layer : whole.layers) once += layer.stage == Stage::part && layer.thickness > 0;
    CHECK(once == f.part->stack.laid.size());
}

TEST_CASE("a mould in pieces shows the first piece on its own seam") {
    Bench b("cello-case-whole");
    const auto& f = b.window.document().findings();
    const auto section = section_at_cut(b.window.document().job(), f, Stage::split);
    REQUIRE_FALSE(section.empty());
    double lowest = 1e30;
    for (const auto& p : f.split->set.pieces[0].mesh.points) lowest = std::min(lowest, f.split->pull.dot(p));
    CHECK(section.foot == Approx(lowest).margin(1e-6));
    // The body of a half stands on the foot, and is no taller than its piece.
    const auto& body = section.layers.front().outline;
    CHECK(high_corner(body).y() - section.foot < f.split->set.pieces[0].map.depth + 1e-6);
}

TEST_CASE("layers are found under the pointer and lead to where they are decided") {
    Bench b;
    b.window.show_stage(Stage::edge);
    b.settle();
    auto& ribbon = b.window.ribbon();
    std::set<Stage> found;
    for (int x = 0; x < ribbon.width(); x += 6) {
        for (int y = 0; y < ribbon.height(); y += 3) {
            const int layer = ribbon.layer_at({static_cast<double>(x), static_cast<double>(y)});
            if (layer >= 0) found.insert(ribbon.section().layers[static_cast<std::size_t>(layer)].stage);
        }
    }
    CHECK(found.count(Stage::plug) == 1);
    CHECK(found.count(Stage::shell) == 1);
    CHECK(found.count(Stage::back) == 1);
}

TEST_CASE("words are legible on their grounds in both inks, and pieces tell apart without hue") {
    for (const auto light : {Light::day, Light::night}) {
        const auto& k = ink(light);
        for (const auto& ground : {k.paper, k.sheet}) {
            CHECK(contrast(k.ink, ground) > 7);
            CHECK(contrast(k.faint, ground) >= 4.5);
            CHECK(contrast(k.petrol, ground) >= 4.5);
            CHECK(contrast(k.oxide, ground) >= 4.5);
        }
        // A fault of its hue must not hide that a neighbouring piece begins.
        for (std::size_t i = 0; i < 6; ++i) {
            for (std::size_t j = i + 1; j < 6; ++j) CHECK(piece_colour(i, k) != piece_colour(j, k));
        }
        CHECK(std::abs(piece_colour(0, k).lightness() - piece_colour(1, k).lightness()) > 5);
    }
}

TEST_CASE("the job card walks by key and click and shows what each stage came to") {
    Bench b;
    auto& card = b.window.job_card();
    card.setFocus();
    QTest::keyClick(&card, Qt::Key_Down);
    CHECK(card.stage() == Stage::shape);
    QTest::mouseClick(&card, Qt::LeftButton, {}, card.row(Stage::heat).center());
    CHECK(card.stage() == Stage::heat);
    CHECK(b.window.slip().stage() == Stage::heat);
    CHECK(b.window.document().looked_at().count(Stage::heat) == 1);
    for (std::size_t s = 0; s + 1 < kStages.size(); ++s)
        CHECK(card.row(static_cast<Stage>(s)).bottom() < card.row(static_cast<Stage>(s + 1)).bottom());
}

TEST_CASE(
    "the section is drawn where layers are decided, folds where the shape is, and gives way to charts") {
    Bench b;
    auto& ribbon = b.window.ribbon();
    const auto tall = [&](Stage stage) {
        b.window.show_stage(stage);
        QTest::qWait(20);
        return ribbon.isVisible() ? ribbon.height() : 0;
    };
    for (const auto stage :
         {Stage::plug, Stage::edge, Stage::shell, Stage::back, Stage::release, Stage::part, Stage::bag}) {
        INFO(name_of(stage).said);
        CHECK(tall(stage) >= 150);
    }
    const int stand = b.window.stand().height();
    for (const auto stage : {Stage::brief, Stage::shape, Stage::split}) {
        INFO(name_of(stage).said);
        const int handle = tall(stage);
        CHECK(handle >= 24);
        CHECK(handle <= 32);
        CHECK(b.window.stand().height() > stand + 100);
    }
    for (const auto stage : {Stage::heat, Stage::run, Stage::log}) CHECK(tall(stage) == 0);
}

TEST_CASE("the maker's own choice of the section holds for its stage, by key and by the handle") {
    Bench b;
    auto& ribbon = b.window.ribbon();
    auto* fold = ribbon.findChild<QToolButton*>("fold-section");
    b.window.show_stage(Stage::split);
    QTest::qWait(20);
    b.key(Qt::Key_F4, Qt::NoModifier);
    QTest::qWait(20);
    CHECK(ribbon.height() >= 150);
    b.window.show_stage(Stage::shape);
    QTest::qWait(20);
    CHECK(ribbon.room() == SectionRoom::handle);
    // Anywhere on the handle opens it.
    QTest::mouseClick(&ribbon, Qt::LeftButton, {}, QPoint(ribbon.width() / 2, ribbon.height() / 2));
    QTest::qWait(20);
    CHECK(ribbon.room() == SectionRoom::open);
    CHECK(fold->accessibleName() == "Fold the section");
    CHECK(fold->width() >= fold->sizeHint().width());
    QTest::mouseClick(fold, Qt::LeftButton);
    CHECK(ribbon.room() == SectionRoom::handle);
    b.window.show_stage(Stage::split);
    CHECK(ribbon.room() == SectionRoom::open);
    // Another window of the same maker begins as this one was left.
    {
        Bench other;
        other.window.show_stage(Stage::split);
        CHECK(other.window.ribbon().room() == SectionRoom::open);
    }
    QSettings().remove("section");
}

TEST_CASE("arrows name the section's layers, Enter goes to where one is decided") {
    Bench b;
    b.window.show_stage(Stage::back);
    b.settle();
    auto& ribbon = b.window.ribbon();
    ribbon.setFocus();
    const auto& layers = ribbon.section().layers;
    REQUIRE(layers.size() > 3);
    std::vector<QString> said;
    for (std::size_t i = 0; i < layers.size() + 2; ++i) {
        QTest::keyClick(&ribbon, Qt::Key_Right);
        said.push_back(ribbon.accessibleDescription());
    }
    for (std::size_t i = 0; i < layers.size(); ++i) {
        CHECK(said[i].contains(layers[i].name));
        CHECK(said[i].startsWith(QString("%1 of %2").arg(i + 1).arg(layers.size())));
    }
    // At the last it stays.
    CHECK(said[layers.size()] == said.back());
    while (layers[static_cast<std::size_t>(ribbon.accessibleDescription().section(' ', 0, 0).toInt() - 1)]
               .stage != Stage::shell)
        QTest::keyClick(&ribbon, Qt::Key_Left);
    QTest::keyClick(&ribbon, Qt::Key_Return);
    CHECK(b.window.stage() == Stage::shell);
}

TEST_CASE("small windows fold the section, large ones let the stand grow") {
    Bench b;
    b.window.show_stage(Stage::shell);
    const int stand = b.window.stand().width();
    b.window.resize(1100, 760);
    QTest::qWait(30);
    CHECK(b.window.ribbon().height() <= 44);
    b.window.resize(1900, 1000);
    QTest::qWait(30);
    CHECK(b.window.ribbon().height() >= 150);
    CHECK(b.window.stand().width() > stand + 400);
}
