// How long work reports and how it is stopped.
#pragma once

#include <atomic>
#include <functional>
#include <string_view>
#include <utility>

#include "core/base/error.hpp"

namespace jig {

/// Handed down into anything that may take more than a moment. Safe to call from several threads.
class Progress {
  public:
    using Listener = std::function<void(double fraction, std::string_view doing)>;

    Progress() = default;
    explicit Progress(Listener listener) : listener_(std::move(listener)) {}

    /// Tells how far the work is (0..1) and throws Cancelled where somebody asked to stop.
    void report(double fraction, std::string_view doing) {
        check();
        if (listener_) listener_(fraction, doing);
    }
    /// Throws Cancelled where somebody asked to stop.
    void check() const {
        if (stopped()) throw Cancelled{};
    }
    [[nodiscard]] bool stopped() const { return stop_.load(std::memory_order_relaxed); }
    void stop() { stop_.store(true, std::memory_order_relaxed); }

  private:
    Listener listener_;
    std::atomic<bool> stop_{false};
};

}  // namespace jig
