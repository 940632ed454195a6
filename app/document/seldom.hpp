// What is told too often is told seldom.
#pragma once

#include <atomic>
#include <chrono>

namespace jig::app {

/// Work tells how far it is hundreds of times a second. Each time would be painted, and whoever paints hears
/// of the next before it comes round to keys and clocks.
class Seldom {
  public:
    /// Whether it may be told once more: the first time, and 60 ms after the last. From any thread.
    [[nodiscard]] bool due() {
        using namespace std::chrono;
        const auto now = duration_cast<milliseconds>(steady_clock::now().time_since_epoch()).count();
        auto next = next_.load(std::memory_order_relaxed);
        return now >= next && next_.compare_exchange_strong(next, now + kApart);
    }

  private:
    static constexpr long long kApart = 60;  // ms
    std::atomic<long long> next_{0};
};

}  // namespace jig::app
