// Pots of mixed resin over a stretch of laying: a new one where the last is empty or too old.
#pragma once

#include <algorithm>

#include "core/stages/stage.hpp"

namespace jig {

struct Resin;

/// A pot is laid within this share of its pot life, typical; the rest is left to wet what it lies on.
inline constexpr double kUsedOfLife = 0.7;

/// Mixed one after the other as the work asks for resin.
class Pots {
  public:
    /// `most` kg are mixed at once, and last for `life` s.
    Pots(double life, double most) : most_(std::max(0.02, most)), life_(kUsedOfLife * life) {}

    /// Lays `resin` kg evenly over `seconds`; returns how many pots are begun for it.
    int lay(double resin, double seconds) {
        int begun = 0;
        const double pace = resin > 0 ? seconds / resin : 0;  // s a kg
        while (resin > 1e-12) {
            if (left_ <= 1e-12 || age_ >= life_) {
                left_ = most_;
                age_ = 0;
                ++begun;
            }
            double laid = std::min(left_, resin);
            if (pace > 0) laid = std::min(laid, (life_ - age_) / pace);
            // What is laid slower than a thousandth of a pot in its life is mixed in thousandths.
            laid = std::min(resin, std::max(laid, 1e-3 * most_));
            left_ -= laid;
            age_ += laid * pace;
            resin -= laid;
        }
        count_ += begun;
        return begun;
    }
    /// Time in which nothing is laid: a wait, a core, a debulk.
    void wait(double seconds) { age_ += seconds; }
    [[nodiscard]] int count() const { return count_; }

  private:
    double most_, life_, left_ = 0, age_ = 0;
    int count_ = 0;
};

/// What a full pot of so many kg comes to, left standing in a room of that heat.
Figure full_pot(const Resin& resin, double mass, double room);

}  // namespace jig
