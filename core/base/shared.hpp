// What several findings share is compared by what it is, not by where it lies.
#pragma once

#include <memory>
#include <utility>

namespace jig {

template <class T>
struct Shared : std::shared_ptr<const T> {
    Shared() = default;
    // NOLINTNEXTLINE(google-explicit-constructor): it is a shared pointer in all but its ==.
    Shared(std::shared_ptr<const T> p) : std::shared_ptr<const T>(std::move(p)) {}
    friend bool operator==(const Shared& a, const Shared& b) {
        return a.get() == b.get() || (a.get() != nullptr && b.get() != nullptr && *a == *b);
    }
};

/// What follows from values that are compared anyhow, kept for speed: taken as alike.
template <class T>
struct Derived : std::shared_ptr<const T> {
    Derived() = default;
    // NOLINTNEXTLINE(google-explicit-constructor)
    Derived(std::shared_ptr<const T> p) : std::shared_ptr<const T>(std::move(p)) {}
    friend bool operator==(const Derived&, const Derived&) { return true; }
};

}  // namespace jig
