// What a part on trial is made of, face by face, and how much of its strength strains use up there.
#pragma once

#include <deque>
#include <map>

#include "core/science/laminate/strength.hpp"
#include "core/science/shell/system.hpp"
#include "core/stages/part/trial.hpp"

namespace jig::part {

/// One ply as strains are read in it.
struct Read {
    double z0 = 0, z1 = 0;  ///< m from the plane that strains are told of
    StackPly ply;
    const Reinforcement* cloth = nullptr;
    const Core* core = nullptr;
    Eigen::Vector2d shear = Eigen::Vector2d::Zero();  ///< largest share of a transverse force, 1/m
};

/// A laminate where certain zones lie and cloth is turned in a certain way.
struct Place {
    Laminate laminate;
    std::vector<Read> plies;
    std::vector<SkinOver> skins;
};

/// Shares of strength that one face uses up.
struct Use {
    double cracks = 0, fibres = 0, core = 0, wrinkles = 0;
};

class Made {
  public:
    /// `upright` is the face in the frame's own axes. Throws InputError where zones leave nothing, for what
    /// the library has not, and for cloth that lies in more ways than one trial can tell apart.
    Made(const DutyAsked& asked, const TriangleMesh& upright, const TriangleMesh& face, const Frame& frame,
         const Draped& draped, const DutyLibrary& shop);

    [[nodiscard]] const std::vector<shell_fe::Skin>& skins() const { return skins_; }
    [[nodiscard]] const std::vector<std::uint16_t>& place_of() const { return place_of_; }
    [[nodiscard]] const Place& at(std::size_t face) const { return places_[place_of_[face]]; }
    [[nodiscard]] Use use(std::size_t face, const shell_fe::FaceStrain& strain) const;
    /// Pa that a core stands under a patch of this width about a place, upright, of a face; that of an insert
    /// whose body carries all of it. 0 without a core there.
    [[nodiscard]] double stands(std::size_t face, const Point& at, double width) const;
    /// Cores without a known shear strength, each once.
    [[nodiscard]] std::vector<std::string> unjudged() const;

  private:
    /// An insert on the face: what of each face its body covers.
    struct Body {
        InsertBody of;
        Point at = Point::Zero();  ///< upright
        double radius = 0;
    };
    /// The body that covers most of a face, by its number, and how many steps of sixteen it covers.
    struct Covered {
        std::size_t body = 0;
        int steps = 0;
        auto operator<=>(const Covered&) const = default;
    };
    void set_bodies(const TriangleMesh& upright, const TriangleMesh& face, const Frame& frame, int piece);
    [[nodiscard]] std::vector<std::pair<Source, LaidLayer>> stack_under(std::uint32_t bits) const;
    [[nodiscard]] Place place(std::uint32_t bits, bool width, const std::vector<int>& turns,
                              const Covered& covered, const Draped& draped);
    /// The core's layer with a share of it taken by an insert's body.
    void fill_in(Read& read, StackPly& ply, const Covered& covered);

    const DutyAsked& asked_;
    const DutyLibrary& shop_;
    const Resin& resin_;
    std::vector<std::pair<Source, LaidLayer>> common_;
    double thickness_ = 0;
    std::vector<Body> bodies_;
    std::vector<Covered> covered_;  ///< by face
    std::deque<Core> filled_;       ///< cores with a body in them; places point to these
    std::vector<Place> places_;
    std::vector<shell_fe::Skin> skins_;
    std::vector<std::uint16_t> place_of_;
};

}  // namespace jig::part
