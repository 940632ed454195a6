#include "core/base/slate.hpp"

#include <tbb/task_arena.h>
#include <tbb/task_group.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <functional>

namespace jig::slate {
namespace {

bool same_fault(const InputError& a, const InputError& b) {
    return a.where() == b.where() && a.problem() == b.problem() && a.mend() == b.mend();
}

bool alike(const Slot& slot, const Known& a, const Known& b) {
    if (a.fault || b.fault) return a.fault && b.fault && same_fault(*a.fault, *b.fault);
    if (a.value == b.value) return true;
    return slot.same != nullptr && slot.same(a.value.get(), b.value.get());
}

}  // namespace

std::vector<Slot> slots_of(std::span<const Input> cells, std::span<const Node> nodes) {
    std::vector<Slot> out;
    for (const auto& cell : cells) out.push_back({{}, cell.read, nullptr, cell.same});
    for (const auto& node : nodes) {
        Slot slot{{}, nullptr, node.run, node.same};
        for (const auto& input : node.inputs) slot.inputs.push_back(slot_of(cells, nodes, input.type));
        out.push_back(std::move(slot));
    }
    return out;
}

Memory::Memory(std::vector<Slot> slots, std::size_t deep)
    : slots_(std::move(slots)), deep_(std::max<std::size_t>(1, deep)), kept_(slots_.size()) {}

std::shared_ptr<const Laid> Memory::lay(const Value& given, bool passing) {
    auto out = std::make_shared<Laid>(Laid{std::vector<Known>(slots_.size()), passing});
    for (std::size_t s = 0; s < slots_.size(); ++s) {
        if (slots_[s].read != nullptr) out->known[s].value = slots_[s].read(given);
    }
    const std::lock_guard hold(lock_);
    for (std::size_t s = 0; s < slots_.size(); ++s) {
        if (slots_[s].read != nullptr) out->known[s] = keep(s, {}, out->known[s], passing);
    }
    return out;
}

const Memory::Kept* Memory::find(std::size_t slot, const std::vector<std::uint64_t>& key, bool passing) {
    auto& kept = kept_[slot];
    const auto at = std::find_if(kept.begin(), kept.end(), [&](const Kept& k) { return k.key == key; });
    if (at == kept.end()) return nullptr;
    auto found = std::move(*at);
    found.passing = found.passing && passing;
    kept.erase(at);
    kept.push_front(std::move(found));
    return &kept.front();
}

Known Memory::keep(std::size_t slot, std::vector<std::uint64_t> key, Known fresh, bool passing) {
    auto& kept = kept_[slot];
    const bool cell = slots_[slot].read != nullptr;
    const auto like = std::find_if(kept.begin(), kept.end(),
                                   [&](const Kept& k) { return alike(slots_[slot], k.known, fresh); });
    if (like != kept.end()) {
        fresh = like->known;  // an equal result is the same result
        if (cell) {
            passing = passing && like->passing;
            kept.erase(like);
        }
    } else {
        fresh.revision = ++revisions_;
    }
    // Two threads may have worked the same out: it takes one place.
    if (!cell) std::erase_if(kept, [&](const Kept& k) { return k.key == key; });
    kept.push_front({std::move(key), fresh, passing});
    if (kept.size() > deep_) forget(slot);
    return fresh;
}

void Memory::forget(std::size_t slot) {
    auto& kept = kept_[slot];
    // The newest stays; of the others the oldest that was only passing, or else the oldest.
    auto out = std::prev(kept.end());
    for (auto k = std::prev(kept.end()); k != kept.begin(); --k) {
        if (k->passing) {
            out = k;
            break;
        }
    }
    kept.erase(out);
}

std::vector<char> Memory::needed(const std::vector<std::size_t>& wanted) const {
    std::vector<char> out(slots_.size(), 0);
    for (const auto w : wanted) out[w] = 1;
    for (std::size_t s = slots_.size(); s-- > 0;) {
        if (out[s] == 0) continue;
        for (const auto i : slots_[s].inputs) out[i] = 1;
    }
    return out;
}

/// One run over the slate.
struct Memory::Run {
    Memory& memory;
    Progress& progress;
    std::vector<Ran>* ran;
    std::vector<Known> known;
    bool passing = false;

    /// What a slot's inputs came to as its key; false where one of them has no value.
    bool key_of(std::size_t s, std::vector<std::uint64_t>& key) const {
        for (const auto i : memory.slots_[s].inputs) {
            if (known[i].value == nullptr) return false;
            key.push_back(known[i].revision);
        }
        return true;
    }
    bool recall(std::size_t s) {
        if (known[s].value != nullptr || known[s].fault) return true;
        std::vector<std::uint64_t> key;
        if (!key_of(s, key)) return true;
        const std::lock_guard hold(memory.lock_);
        const auto* kept = memory.find(s, key, passing);
        if (kept != nullptr) known[s] = kept->known;
        return kept != nullptr;
    }
    void settle(std::size_t s) {
        if (recall(s)) return;
        progress.check();
        std::vector<std::uint64_t> key;
        key_of(s, key);
        std::vector<Value> inputs;
        for (const auto i : memory.slots_[s].inputs) inputs.push_back(known[i].value);
        const auto from = std::chrono::steady_clock::now();
        Known fresh;
        try {
            fresh.value = memory.slots_[s].run(progress, inputs);
        } catch (const InputError& e) {
            fresh.fault = std::make_shared<const InputError>(e);
        }
        const std::chrono::duration<double> took = std::chrono::steady_clock::now() - from;
        const std::lock_guard hold(memory.lock_);
        known[s] = memory.keep(s, std::move(key), std::move(fresh), passing);
        if (ran != nullptr) ran->push_back({s, took.count()});
    }
};

std::shared_ptr<const Laid> Memory::work_out(const Laid& laid, const std::vector<std::size_t>& wanted,
                                             Progress& progress, unsigned threads, std::vector<Ran>* ran) {
    const auto need = needed(wanted);
    Run run{*this, progress, ran, laid.known, laid.passing};
    if (threads <= 1) {
        for (std::size_t s = 0; s < slots_.size(); ++s) {
            if (need[s] != 0 && slots_[s].run != nullptr) run.settle(s);
        }
    } else {
        // A node is started by the last of its inputs to be settled.
        std::vector<std::vector<std::size_t>> readers(slots_.size());
        std::vector<std::atomic<int>> waits(slots_.size());
        std::vector<std::size_t> ready;
        for (std::size_t s = 0; s < slots_.size(); ++s) {
            if (need[s] == 0 || slots_[s].run == nullptr) continue;
            for (const auto i : slots_[s].inputs) {
                if (slots_[i].run == nullptr) continue;
                readers[i].push_back(s);
                ++waits[s];
            }
            if (waits[s] == 0) ready.push_back(s);
        }
        tbb::task_arena arena(static_cast<int>(threads));
        arena.execute([&] {
            tbb::task_group group;
            const std::function<void(std::size_t)> settle = [&](std::size_t s) {
                run.settle(s);
                for (const auto r : readers[s]) {
                    if (--waits[r] == 0) group.run([&settle, r] { settle(r); });
                }
            };
            for (const auto s : ready) group.run([&settle, s] { settle(s); });
            group.wait();
        });
    }
    return std::make_shared<const Laid>(Laid{std::move(run.known), laid.passing});
}

Known Memory::recall(const Laid& laid, std::size_t wanted) {
    Progress quiet;
    Run run{*this, quiet, nullptr, laid.known, true};
    const auto need = needed({wanted});
    for (std::size_t s = 0; s < slots_.size(); ++s) {
        if (need[s] != 0 && slots_[s].run != nullptr && !run.recall(s)) return {};
    }
    return run.known[wanted];
}

}  // namespace jig::slate
