#include "core/science/mesh/patches.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <random>
#include <set>

#include "tests/shapes.hpp"

using namespace jig;

namespace {

/// The mean over each face's patch, gathered as the words have it: faces that count, over shared points, by
/// the way of their middles.
Eigen::ArrayXXd every_mean(const TriangleMesh& mesh, const Eigen::ArrayXXd& by_face, double reach,
                           const std::vector<char>& among) {
    const auto counts = [&](std::size_t f) { return among.empty() || among[f] != 0; };
    const auto touch = [&](std::size_t f, std::size_t g) {
        for (const auto a : mesh.triangles[f])
            for (const auto b : mesh.triangles[g])
                if (a == b) return true;
        return false;
    };
    std::vector<Eigen::ArrayXd> rows;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if (!counts(f)) continue;
        std::set<std::size_t> patch{f};
        for (bool grew = true; grew;) {
            grew = false;
            for (std::size_t g = 0; g < mesh.triangles.size(); ++g) {
                if (!counts(g) || patch.contains(g) || (mesh.centre(g) - mesh.centre(f)).norm() > reach)
                    continue;
                if (std::none_of(patch.begin(), patch.end(), [&](std::size_t p) { return touch(p, g); }))
                    continue;
                patch.insert(g);
                grew = true;
            }
        }
        double whole = 0;
        Eigen::ArrayXd sum = Eigen::ArrayXd::Zero(by_face.cols());
        for (const auto g : patch) {
            const double area = mesh.area_vector2(g).norm();
            whole += area;
            sum += area * by_face.row(static_cast<Eigen::Index>(g)).transpose();
        }
        rows.push_back(sum / whole);
    }
    Eigen::ArrayXXd out(static_cast<Eigen::Index>(rows.size()), by_face.cols());
    for (std::size_t i = 0; i < rows.size(); ++i) out.row(static_cast<Eigen::Index>(i)) = rows[i].transpose();
    return out;
}

void turn(TriangleMesh& mesh, const Eigen::AngleAxisd& by, const Point& along) {
    for (auto& p : mesh.points) p = by * p + along;
}

}  // namespace

TEST_CASE(
    "the greatest mean over a patch is that of all patches, whatever the fields and whichever way it lies") {
    std::mt19937 dice(7);
    for (const double angle : {0.0, 0.7, 2.1}) {
        auto dome = shapes::cap(0.5, 1.2, 9, 20);
        turn(dome, Eigen::AngleAxisd(angle, Point(1, 2, -1).normalized()), 3 * angle * Point(-1, 0.2, 5));
        const auto faces = static_cast<Eigen::Index>(dome.triangles.size());
        Eigen::ArrayXXd fields(faces, 3);
        std::uniform_real_distribution<double> even(0, 1);
        std::vector<char> among(static_cast<std::size_t>(faces));
        for (Eigen::Index f = 0; f < faces; ++f) {
            // All the same; a few peaks; as it falls, below nothing too.
            fields.row(f) << 3.5, std::pow(even(dice), 20), even(dice) - 0.8;
            among[static_cast<std::size_t>(f)] = even(dice) < 0.7 ? 1 : 0;
        }
        for (const double reach : {0.0, 0.03, 0.11, 0.4, 9.0}) {
            for (const auto& which : {std::vector<char>{}, among}) {
                CAPTURE(angle, reach, which.empty());
                const auto got = greatest_patch_means(dome, fields, reach, which);
                const Eigen::ArrayXd want =
                    every_mean(dome, fields, reach, which).colwise().maxCoeff().transpose();
                CHECK((got - want).abs().maxCoeff() < 1e-11);
            }
        }
        CHECK(greatest_patch_means(dome, fields, 0.1, std::vector<char>(among.size(), 0)).isZero(0));
    }
}

TEST_CASE("a peak of one face counts by its share of the patch, and not across what does not count") {
    // Ten by ten squares of 1 cm, each two triangles.
    TriangleMesh sheet;
    for (int i = 0; i <= 10; ++i)
        for (int j = 0; j <= 10; ++j) sheet.points.emplace_back(0.01 * i, 0.01 * j, 0);
    const auto at = [](int i, int j) { return static_cast<std::uint32_t>(11 * i + j); };
    for (int i = 0; i < 10; ++i) {
        for (int j = 0; j < 10; ++j) {
            sheet.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            sheet.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    Eigen::ArrayXXd peak = Eigen::ArrayXXd::Zero(200, 1);
    peak(0) = 1;
    // About the corner's own face the middles within 12 mm: those of its square, and of three round it.
    int within = 0, least = 200;
    for (std::size_t f = 0; f < 200; ++f) {
        if ((sheet.centre(f) - sheet.centre(0)).norm() > 0.012) continue;
        within = 0;
        for (std::size_t g = 0; g < 200; ++g)
            within += (sheet.centre(g) - sheet.centre(f)).norm() <= 0.012 ? 1 : 0;
        least = std::min(least, within);
    }
    CHECK(greatest_patch_means(sheet, peak, 0.012)[0] == Approx(1.0 / least));
    // A strip that does not count parts the patch, though the middles beyond it are within reach.
    std::vector<char> among(200, 1);
    for (int j = 0; j < 10; ++j)
        among[static_cast<std::size_t>(20 + 2 * j)] = among[static_cast<std::size_t>(21 + 2 * j)] = 0;
    Eigen::ArrayXXd far = Eigen::ArrayXXd::Zero(200, 1);
    for (std::size_t f = 0; f < 20; ++f) far(static_cast<Eigen::Index>(f)) = 2;
    CHECK(greatest_patch_means(sheet, far, 0.05, among)[0] == Approx(2));
    CHECK(greatest_patch_means(sheet, far, 1, among)[0] == Approx(2));
    CHECK(greatest_patch_means(sheet, far, 1)[0] == Approx(0.2));
}
