// What the stand does with large things: detail drops while it turns and comes back.
#include <QElapsedTimer>

#include <set>

#include "app/stand/coarsen.hpp"
#include "app/stand/dimensions.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace bench;

namespace {

std::vector<Corner> corners_of(const TriangleMesh& mesh) {
    std::vector<Corner> out;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            const auto& p = mesh.points[i];
            out.push_back({static_cast<float>(p.x()), static_cast<float>(p.y()), static_cast<float>(p.z()), 0,
                           0, 1, 0.5F, 0.5F, 0.5F, 2});
        }
    }
    return out;
}

}  // namespace

TEST_CASE("a coarser picture keeps the size, the place and the colours with far fewer triangles") {
    const auto fine = corners_of(shapes::sphere(0.5, 200));
    const auto coarse = coarsened(fine, 30);
    REQUIRE(coarse.size() % 3 == 0);
    CHECK(coarse.size() < fine.size() / 5);
    Eigen::AlignedBox3d a, b;
    for (const auto& c : fine) a.extend(Point(c.x, c.y, c.z));
    for (const auto& c : coarse) {
        b.extend(Point(c.x, c.y, c.z));
        // Means of neighbours on a sphere lie within a cell of it.
        CHECK(std::abs(std::hypot(c.x, c.y, c.z) - 0.5F) < 1.0F / 30);
        CHECK(c.pattern == 2);
    }
    CHECK((a.min() - b.min()).norm() < 0.05);
    CHECK((a.max() - b.max()).norm() < 0.05);
}

TEST_CASE("nothing is drawn twice in the coarse picture, and nothing is left of nothing") {
    auto twice = corners_of(shapes::box({0, 0, 0}, {1, 1, 1}));
    const auto once = twice.size();
    twice.insert(twice.end(), twice.begin(), twice.begin() + static_cast<std::ptrdiff_t>(once));
    CHECK(coarsened(twice, 4).size() == once);
    CHECK(coarsened({}, 4).empty());
}

TEST_CASE("detail drops while the stand is turned and comes back when it rests") {
    Bench b;
    auto& stand = b.window.stand();
    CHECK_FALSE(stand.turning());
    const double yaw = stand.camera().yaw;
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_Left);
    CHECK(stand.camera().yaw != yaw);
    CHECK(stand.turning());
    REQUIRE(QTest::qWaitFor([&] { return !stand.turning(); }, 2000));
    QWheelEvent wheel({200, 200}, stand.mapToGlobal(QPointF(200, 200)), {}, {0, 120}, {}, {},
                      Qt::NoScrollPhase, false);
    const double far = stand.camera().distance;
    QApplication::sendEvent(stand.childAt(200, 200) == nullptr ? &stand : stand.findChild<QWidget*>("canvas"),
                            &wheel);
    CHECK(stand.camera().distance < far);
}

TEST_CASE("lines are as wide and as dashed as they are meant, whatever way they run") {
    Bench b;
    auto& stand = b.window.stand();
    const QColor red(230, 0, 0);
    const auto painted = [&](std::vector<Point> way, double width, bool dashed) {
        Scene s;
        s.bounds = {Point(-1, -1, -1), Point(1, 1, 1)};
        s.lines.push_back({std::move(way), red, width, dashed});
        stand.show_scene(std::move(s), true);
        QTest::qWait(30);
        const auto picture = stand.grab().toImage();
        // What lies half over a pixel counts by half; the paper is a little red itself.
        const auto redness = [](const QColor& c) { return c.red() - c.green(); };
        const double paper = redness(ink(Light::day).paper);
        double sum = 0;
        for (int y = 0; y < picture.height(); ++y) {
            for (int x = 0; x < picture.width(); ++x)
                sum += std::clamp((redness(picture.pixelColor(x, y)) - paper) / (redness(red) - paper), 0.0,
                                  1.0);
        }
        return sum;
    };
    const std::vector<std::vector<Point>> ways{{Point(-1, 0, 0), Point(1, 0, 0)},
                                               {Point(0, -1, 0), Point(0, 1, 0)},
                                               {Point(0, 0, -1), Point(0, 0, 1)},
                                               {Point(-0.7, -0.5, -0.6), Point(0.8, 0.6, 0.7)}};
    for (const auto& way : ways) {
        const double thin = painted(way, 1, false), bold = painted(way, 6, false),
                     dashed = painted(way, 6, true);
        REQUIRE(thin > 40);
        // Six times as wide, and square at its ends.
        CHECK(bold / thin > 5.2);
        CHECK(bold / thin < 6.8);
        CHECK(dashed / bold > 0.45);
        CHECK(dashed / bold < 0.85);
        // In twenty pieces it is the same line: its dashes go on from piece to piece.
        std::vector<Point> pieces;
        for (int i = 0; i <= 20; ++i) pieces.push_back(way[0] + (way[1] - way[0]) * i / 20.0);
        CHECK(painted(pieces, 6, false) == Approx(bold).epsilon(0.02));
        CHECK(painted(pieces, 6, true) == Approx(dashed).epsilon(0.1));
    }
    // What runs through the eye and behind it neither crashes nor covers the view.
    const auto eye = stand.camera().eye();
    CHECK(painted({eye - 3 * (eye - stand.camera().target), eye + (eye - stand.camera().target)}, 3, false) <
          0.05 * stand.width() * stand.height());
}

TEST_CASE("from wherever it is seen, dimensions cross neither the thing nor each other") {
    Job job;
    job.shape.tray.facet = 0.03;
    const auto f = evaluate(job, load_shop(data_folder().toStdString() + "/library"), quiet, Depth::stages);
    const auto scene = scene_of(job, f, Stage::brief, ink(Light::day), {UnitSystem::metric, "¤"});
    REQUIRE(scene.dimensions.size() == 3);
    const QSize view(900, 700);
    int seen = 0, over = 0;
    for (int turn = 0; turn < 36; ++turn) {
        for (const double pitch : {0.25, 0.5, 0.8, 1.1}) {
            Camera camera;
            camera.yaw = radians(10.0 * turn + 3);
            camera.pitch = pitch;
            camera.frame(scene.bounds, view);
            const auto drawn = dimensions_in(scene, camera, view);
            INFO(turn << " " << pitch);
            CHECK(drawn.size() == 3);
            for (std::size_t i = 0; i < drawn.size(); ++i) {
                for (std::size_t j = 0; j < i; ++j)
                    CHECK(drawn[i].line.intersects(drawn[j].line, nullptr) != QLineF::BoundedIntersection);
                // Its middle, where it is written, lies off the faces.
                ++seen;
                const auto m = camera.matrix(view);
                bool covered = false;
                for (std::size_t c = 0; c + 2 < scene.corners.size() && !covered; c += 3) {
                    QPolygonF face;
                    for (std::size_t k = 0; k < 3; ++k)
                        face << Camera::project(
                            m, {scene.corners[c + k].x, scene.corners[c + k].y, scene.corners[c + k].z},
                            view);
                    covered = face.containsPoint(drawn[i].line.center(), Qt::WindingFill);
                }
                over += covered;
            }
        }
    }
    CHECK(over < seen / 50);
}

// Run by hand: `app-tests "[orbit]"` prints frames a second, still and turning.
TEST_CASE("orbiting large things", "[.][orbit]") {
    const int rings = GENERATE(70, 194, 273);
    Bench b;
    const auto big = b.file("big.stl");
    write_atomically(write_stl_binary(shapes::sphere(0.3, rings)), big.toStdString());
    REQUIRE(b.window.bring_in_mesh(big));
    REQUIRE(b.home());
    b.settle();
    auto& stand = b.window.stand();
    for (const bool turning : {false, true}) {
        static_cast<void>(stand.grab());
        QElapsedTimer clock;
        clock.start();
        constexpr int kFrames = 20;
        for (int i = 0; i < kFrames; ++i) {
            if (turning) QTest::keyClick(&stand, Qt::Key_Left);
            static_cast<void>(stand.grab());
        }
        WARN((turning ? "turning: " : "still: ")
             << kFrames * 1000.0 / static_cast<double>(clock.elapsed()) << " frames a second, "
             << b.window.document().findings().shape->mesh.triangles.size() << " triangles");
    }
}
