// A curve faired through measured points, as stiff as one likes.
#pragma once

#include <vector>

namespace jig {

/// Natural cubic smoothing spline through (x, y): the curve that makes
/// Σ(y − s(x))² + stiffness·L³·∫s″² dx smallest, L the range of x (Reinsch 1967; Green & Silverman 1994,
/// ch. 2). Stiffness 0 goes through every point; a large one tends to the straight line of least squares.
class FairCurve {
  public:
    /// `x` must rise strictly and hold two points or more, `y` as many.
    FairCurve(std::vector<double> x, const std::vector<double>& y, double stiffness);

    [[nodiscard]] double at(double x) const;
    /// Second derivative, 1/x·1/x of y.
    [[nodiscard]] double bend(double x) const;
    /// How often the bend changes sign between the ends, beyond `share` of its largest: humps and hollows.
    [[nodiscard]] int humps(double share = 0.05) const;

  private:
    [[nodiscard]] std::size_t span(double x) const;
    std::vector<double> x_, value_, bend_;
};

}  // namespace jig
