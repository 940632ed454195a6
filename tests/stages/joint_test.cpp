// Joints by hand, and the corners that cloth bridges, through the job.
#include <catch2/catch.hpp>

#include "tests/job/fixtures.hpp"

using namespace jig;

namespace jig::part {
using fixtures::call;
using fixtures::worked_out;

TEST_CASE("a joggle is as deep as its mate and the glue, built of whole layers of tape") {
    Joint j;
    j.kind = JointKind::joggle;
    j.gap = 0.0005;
    j.tape = 0.00013;
    const auto f = join(j, 0.0028, 3.0, 1200);
    CHECK(f.step == Approx(0.0033));
    CHECK(f.tape_layers == 25);  // 3.3 / 0.13 = 25.4
    CHECK(f.tape_length == Approx(75));
    CHECK(f.lap == Approx(20 * 0.0028));
    CHECK(f.length == 3.0);
}

TEST_CASE("a bead holds what fills the lap, with what is squeezed out") {
    Joint j;
    j.kind = JointKind::bead;
    j.lap = 12.5;
    j.gap = 0.001;
    j.squeeze_out = 0.5;
    j.length = 2;
    const auto f = join(j, 0.002, 99, 1100);
    CHECK(f.adhesive == Approx(0.025 * 0.001 * 2 * 1.5 * 1100));
    CHECK(kPi / 4 * f.bead * f.bead == Approx(0.025 * 0.001 * 1.5));
    CHECK(f.lap == Approx(0.025));
    CHECK(f.tape_layers == 0);
    // A butt strip covers both sides.
    j.kind = JointKind::butt;
    CHECK(join(j, 0.002, 99, 1100).adhesive == Approx(2 * f.adhesive));
    j.kind = JointKind::none;
    CHECK(join(j, 0.002, 99, 1100).adhesive == 0);
}

TEST_CASE("joints are judged and their fixes mend them") {
    auto job = fixtures::small_job();
    CHECK(call(worked_out(job), "short_lap") == nullptr);
    job.part.joint.kind = JointKind::bead;
    job.part.joint.lap = 5;
    job.part.joint.gap = 0.00005;
    const auto f = worked_out(job);
    CHECK(f.part->joint.length == Approx(perimeter(f.split->rim)));
    for (const auto* key : {"short_lap", "glue_gap"}) {
        REQUIRE(call(f, key) != nullptr);
        job = patched(job, call(f, key)->fix->patch);
    }
    const auto mended = worked_out(job);
    // The core ends before the joint: skins alone are lapped.
    double skins = 0;
    for (const auto& l : mended.part->stack.laid)
        skins += l.layer.kind == LayerKind::core ? 0 : l.ply.thickness;
    CHECK(mended.part->joint.lap == Approx(kAmpleLap * skins));
    CHECK(call(mended, "short_lap") == nullptr);
    CHECK(call(mended, "glue_gap") == nullptr);
    const double kg = value_of(mended.figures(Stage::part), "adhesive");
    CHECK(kg > 0);
    // By the adhesive's own density, unless it was weighed here.
    job.part.joint.adhesive = "structural adhesive, warm cure";
    CHECK(value_of(worked_out(job).figures(Stage::part), "adhesive") == Approx(kg * 1300 / 1200));
    job.part.joint.density = 900;
    CHECK(value_of(worked_out(job).figures(Stage::part), "adhesive") == Approx(kg * 900 / 1200));
}

TEST_CASE("tight corners are told where cloth is laid over or into them") {
    auto job = fixtures::small_job();
    CHECK(worked_out(job).shell->corners.length == 0);
    // A recess with steep walls makes hollows on the plug.
    job.shape.kind = ShapeKind::turned;
    job.shape.turned.smooth = false;
    job.shape.turned.facet = 0.02;
    job.shape.turned.profile = {{0.4, 0}, {0.38, 0.2}, {0.25, 0.2}, {0.22, 0.1}, {0, 0.1}};
    const auto f = worked_out(job);
    // The corner runs round the recess' floor, 2π·0.22.
    CHECK(f.shell->corners.length == Approx(2 * kPi * 0.22).epsilon(0.02));
    REQUIRE(call(f, "bridges") != nullptr);
    // In the mould the part meets the outer edge and the recess' rim instead.
    CHECK(f.part->corners.length == Approx(2 * kPi * (0.38 + 0.25)).epsilon(0.02));
    CHECK(f.shell->bridging_radius == Approx(2 * f.shell->stack.laminate.thickness));
}

TEST_CASE("adhesive, fillets and clay that the stages work out are bought") {
    auto job = fixtures::demo("cello-case-whole");
    const auto f = worked_out(job);
    const auto bought = [](const jig::Findings& all, Ledger ledger, Stage stage, const std::string& what) {
        double sum = 0;
        for (const auto& m : all.run->materials)
            sum += m.ledger == ledger && m.stage == stage && m.what == what ? m.amount : 0;
        return sum;
    };
    // The library adds a tenth to adhesive.
    CHECK(bought(f, Ledger::each, Stage::part, job.part.joint.adhesive) ==
          Approx(1.1 * f.part->joint.adhesive));
    CHECK(bought(f, Ledger::each, Stage::part, "thickened epoxy for fillets") >
          1150 * f.part->corners.filler);
    job.part.joint.kind = JointKind::none;
    job.split.way = SplitWay::one;
    const auto plain = worked_out(job);
    CHECK(bought(plain, Ledger::each, Stage::part, job.part.joint.adhesive) == 0);
    CHECK(bought(plain, Ledger::once, Stage::edge, "clay fillet") <
          bought(f, Ledger::once, Stage::edge, "clay fillet"));
}

}  // namespace jig::part
