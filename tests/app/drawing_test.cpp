// Large bodies are drawn behind the window: hands never wait for a picture, and never reach into an old one.
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/shapes.hpp"

using namespace bench;

namespace {

/// A bench with a ball of so many rings on it, split by a plane.
struct LargeBench : Bench {
    explicit LargeBench(int rings) {
        Job job;
        job.shape.kind = ShapeKind::mesh;
        job.shape.file = "ball.stl";
        job.attachments = {
            {"ball.stl", std::make_shared<const std::string>(write_stl_binary(shapes::sphere(0.3, rings)))}};
        job.split.way = SplitWay::plane;
        window.document().start(job, {});
        settle();
    }
    Scene expected(Stage stage) {
        View view;
        view.apart = window.stand().apart();
        return scene_of(window.document().job(), window.document().findings(), stage, ink(Light::day),
                        window.wording(), view);
    }
};

}  // namespace

TEST_CASE("whichever way stages are walked, the last one's picture is the one that stays") {
    LargeBench b(120);
    REQUIRE(b.window.document().findings().shape->mesh.triangles.size() > 30'000);
    b.window.show_stage(Stage::shape);
    CHECK(b.window.is_drawing());
    for (const auto stage : {Stage::split, Stage::plug, Stage::edge, Stage::shell, Stage::split, Stage::part})
        b.window.show_stage(stage);
    b.settle();
    const auto& seen = b.window.stand().scene();
    CHECK(seen.legend == b.expected(Stage::part).legend);
    CHECK(seen.corners.size() == b.expected(Stage::part).corners.size());
    // The whole body comes with its light copy.
    b.window.show_stage(Stage::shape);
    b.settle();
    CHECK_FALSE(seen.coarse.empty());
    CHECK(seen.coarse.size() < seen.corners.size());
    // Small things stand there at once.
    b.window.document().start(load_job((data_folder() + "/demo/cello-case.json").toStdString()), {});
    b.settle();
    b.window.show_stage(Stage::edge);
    CHECK_FALSE(b.window.is_drawing());
    CHECK(b.window.stand().scene().legend == b.expected(Stage::edge).legend);
    CHECK(b.window.stand().scene().coarse.empty());
}

TEST_CASE("a cut that is dragged leaves the surfaces that were drawn, another shape does not") {
    LargeBench b(120);
    b.window.show_stage(Stage::shell);
    b.settle();
    const auto drawn = b.window.stand().scene().revision;
    REQUIRE(drawn > 0);
    b.window.stand().setFocus();
    for (int i = 0; i < 5; ++i) QTest::keyClick(&b.window.stand(), Qt::Key_Period);
    b.settle();
    CHECK(b.window.document().job().cut.at > 0.5);
    CHECK(b.window.stand().scene().revision == drawn);
    auto other = b.window.document().job();
    other.shape.place.scale = 0.9;
    b.window.document().replace("smaller", other);
    b.settle();
    CHECK(b.window.stand().scene().revision != drawn);
}

TEST_CASE("the plane's handle follows the mouse while its picture is still being drawn") {
    LargeBench b(120);
    b.window.show_stage(Stage::split);
    b.settle();
    REQUIRE(b.window.stand().scene().has_plane);
    auto& stand = b.window.stand();
    stand.setFocus();
    const auto before = stand.scene().plane_at;
    const auto steps = b.window.document().undo_name();
    // Faster than pictures come: no step is lost.
    for (int i = 0; i < 6; ++i) QTest::keyPress(&stand, Qt::Key_Greater, Qt::ShiftModifier);
    const auto& scene = stand.scene();
    const double travel = (scene.plane_high - scene.plane_low).norm();
    CHECK((scene.plane_at - before).norm() == Approx(6 * 0.02 * travel).epsilon(1e-6));
    QTest::keyRelease(&stand, Qt::Key_Greater, Qt::ShiftModifier);
    b.settle();
    CHECK((stand.scene().plane_at - before).norm() == Approx(6 * 0.02 * travel).epsilon(1e-3));
    CHECK(b.window.document().undo_name() != steps);
}

TEST_CASE("hands reach for nothing in a picture of another stage") {
    LargeBench b(120);
    b.window.show_stage(Stage::edge);
    b.settle();
    auto& stand = b.window.stand();
    REQUIRE_FALSE(stand.scene().marks.empty());
    const auto before = b.window.document().job();
    // The split's picture is not there yet: what looks like a bolt is none of the split's.
    b.window.show_stage(Stage::split);
    REQUIRE(b.window.is_drawing());
    emit stand.mark_dragged(0, 0.3);
    emit stand.plane_dragged(0.2);
    CHECK(b.window.document().job().edge == before.edge);
    CHECK(b.window.document().job().split == before.split);
    b.settle();
    emit stand.plane_dragged(0.2);
    CHECK_FALSE(b.window.document().job().split == before.split);
}
