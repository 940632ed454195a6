#include "core/stages/cautions.hpp"

namespace jig {

const std::vector<std::string>& cautions_of(Stage stage) {
    static const std::vector<std::string> none;
    static const std::vector<std::string> edge{
        "Clamps, wedges and jacking screws let go suddenly: stand aside of the line of force, eyes covered.",
        "Cured edges cut like glass: dress them before anyone reaches in."};
    static const std::vector<std::string> shell{
        "Epoxy and amine hardeners sensitise: gloves and sleeves, never solvent on skin.",
        "Styrene vapour: extraction or an organic-vapour respirator; no flame, no sparks.",
        "Peroxide (MEKP) burns and blinds: goggles when mixing; never let it meet accelerator neat.",
        "A full pot of resin heats itself, smokes and can burn: small batches, spread out, a safe place "
        "outside for hot pots."};
    static const std::vector<std::string> back{
        "Turning a tool over: plan the lift, the feet and where the hands go; state the mass to everyone who "
        "helps.",
        "Saw and router dust of plywood: extraction; blades guarded."};
    static const std::vector<std::string> release{
        "Semi-permanent release and solvents: vapours that burn and stupefy; air the room, no flame, gloves "
        "that stand them."};
    static const std::vector<std::string> heat{
        "Ovens and hot tools: gloves, solvent flashed off before heating, an over-temperature cut-out that "
        "works by itself.",
        "Carbon conducts: keep heating wires and meters off it."};
    static const std::vector<std::string> part{
        "Carbon and glass dust when trimming: extraction, respirator, covered skin; carbon dust in switches "
        "shorts them.",
        "Epoxy sensitises, styrene stupefies, peroxide blinds: gloves, air, goggles.",
        "Parts that will carry people, spin or hold pressure need proof tests by competent people."};
    static const std::vector<std::string> bag{
        "Vacuum: only vessels made for it; a glass jar or weak trap implodes.",
        "Vapours that the pump draws off leave at its exhaust: lead it outside.",
        "Resin that runs into the trap is a full pot: it heats itself and can burn; empty it in time.",
        "Halves that bolts draw together crush fingers, and resin spurts from the gap: hands off it, goggles "
        "on."};
    static const std::vector<std::string> run{
        "Long days with resin tire people: rotate hands, keep first aid and eye wash at the bench."};
    switch (stage) {
        case Stage::edge:
            return edge;
        case Stage::shell:
            return shell;
        case Stage::back:
            return back;
        case Stage::release:
            return release;
        case Stage::heat:
            return heat;
        case Stage::part:
            return part;
        case Stage::bag:
            return bag;
        case Stage::run:
            return run;
        case Stage::brief:
        case Stage::shape:
        case Stage::split:
        case Stage::log:
        case Stage::plug:  // by its route: plug/hazards.hpp
            return none;
    }
    return none;
}

}  // namespace jig
