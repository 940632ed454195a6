// Loops over independent items on all cores.
#pragma once

#include <algorithm>
#include <cstddef>
#include <exception>
#include <thread>
#include <vector>

namespace jig {

/// Number of threads a loop over `items` should use when one thread deserves at least `grain` items.
inline unsigned threads_for(std::size_t items, std::size_t grain) {
    const auto cores = std::max(1u, std::thread::hardware_concurrency());
    const auto wanted = std::max<std::size_t>(1, items / std::max<std::size_t>(1, grain));
    return static_cast<unsigned>(std::min<std::size_t>(cores, wanted));
}

/// Calls `body(begin, end, thread)` on contiguous shares of [0, items). The first exception of any share is
/// rethrown here once all have ended. `body` must only write what belongs to its share.
template <class Body>
void parallel_shares(std::size_t items, std::size_t grain, Body&& body) {
    const unsigned threads = threads_for(items, grain);
    std::vector<std::exception_ptr> failed(threads);
    const auto share = [&](unsigned t) {
        try {
            body(items * t / threads, items * (t + 1) / threads, t);
        } catch (...) {
            failed[t] = std::current_exception();
        }
    };
    std::vector<std::thread> helpers;
    helpers.reserve(threads - 1);
    for (unsigned t = 1; t < threads; ++t) helpers.emplace_back(share, t);
    share(0);
    for (auto& helper : helpers) helper.join();
    for (const auto& failure : failed) {
        if (failure) std::rethrow_exception(failure);
    }
}

}  // namespace jig
