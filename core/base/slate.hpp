// A slate of findings: free functions whose parameter lists are all that they read, and so their memo's keys.
//
//     struct Sum { int value; bool operator==(const Sum&) const = default; };
//     Sum add(const Left&, const Right&);              // a node; Left and Right are cells or other nodes
//     struct Sums : Graph<Given, &add, &twice> {};     // a node stands after those that it reads
//     Slate<Sums> slate;
//     const auto laid = slate.lay(std::make_shared<const Given>(...));
//     slate.want<Sum>(laid, progress).value;           // worked out, or from the memo
//
// It knows nothing of moulds.
#pragma once

#include <array>
#include <concepts>
#include <cstdint>
#include <deque>
#include <memory>
#include <mutex>
#include <span>
#include <string_view>
#include <tuple>
#include <type_traits>
#include <utility>
#include <vector>

#include "core/base/progress.hpp"

namespace jig {

/// What a node came to. Without value and fault something before it has failed, or, where the memo alone was
/// asked, it has not been worked out.
template <class T>
struct Outcome {
    std::shared_ptr<const T> value;
    std::shared_ptr<const InputError> fault;
    explicit operator bool() const { return value != nullptr; }
    const T& operator*() const { return *value; }
    const T* operator->() const { return value.get(); }
};

/// How an input of type T is read. To be specialised with `static auto of(const Given&)`, which gives T or
/// const T&; T is compared by ==.
template <class T>
struct Cell;

/// A function that was really run, and for how long.
struct Ran {
    std::size_t slot = 0;
    double seconds = 0;
};

namespace slate {

using Value = std::shared_ptr<const void>;

/// One slot of the slate: a cell that is read (`read`), or a node that is run on `inputs` (`run`).
struct Slot {
    std::vector<std::size_t> inputs;
    Value (*read)(const Value& given) = nullptr;
    Value (*run)(Progress&, const std::vector<Value>&) = nullptr;
    bool (*same)(const void*, const void*) = nullptr;  ///< none: no two results are taken as alike
};

/// A value with the number that it keeps as long as it is remembered; 0 where there is none.
struct Known {
    std::uint64_t revision = 0;
    Value value;
    std::shared_ptr<const InputError> fault;
};

/// What was read at one time, and what has been worked out of it so far.
struct Laid {
    std::vector<Known> known;  ///< by slot; those of nodes are empty until they have been worked out
    bool passing = false;
};

/// Remembers the last results of every slot, and runs what is not remembered. Safe to use from several
/// threads at once.
class Memory {
  public:
    /// Slots stand after all that they read. `deep` results are remembered of each.
    Memory(std::vector<Slot> slots, std::size_t deep);

    /// Reads the cells. `passing` ones are the first to be forgotten: steps of a drag.
    std::shared_ptr<const Laid> lay(const Value& given, bool passing);
    /// Works `wanted` and all that they read out, on `threads` threads, and lays them beside what was read:
    /// they are there then whatever others work out and crowd from the memo meanwhile. Throws Cancelled and
    /// what no node should throw; results of nodes that ended before are kept.
    std::shared_ptr<const Laid> work_out(const Laid& laid, const std::vector<std::size_t>& wanted,
                                         Progress& progress, unsigned threads, std::vector<Ran>* ran);
    /// One of them from what is laid there or remembered, without running anything; empty where that is not
    /// enough.
    Known recall(const Laid& laid, std::size_t wanted);

  private:
    struct Kept {
        std::vector<std::uint64_t> key;
        Known known;
        bool passing = false;
    };
    struct Run;
    /// By slot: whether `wanted` read it, themselves counted.
    [[nodiscard]] std::vector<char> needed(const std::vector<std::size_t>& wanted) const;
    /// Looks a key up; what is found becomes the newest.
    const Kept* find(std::size_t slot, const std::vector<std::uint64_t>& key, bool passing);
    Known keep(std::size_t slot, std::vector<std::uint64_t> key, Known fresh, bool passing);
    void forget(std::size_t slot);

    std::vector<Slot> slots_;
    std::size_t deep_;
    std::mutex lock_;
    std::vector<std::deque<Kept>> kept_;  ///< by slot, newest first
    std::uint64_t revisions_ = 0;
};

/// A type as a value: types are compared while compiling without a template for each pair of them. By what
/// the compiler calls them: addresses of two objects are no constants to it under the sanitizers.
struct TypeName {
    std::string_view name;
    std::uint64_t hash = 0;
    constexpr bool operator==(const TypeName& other) const {
        return hash == other.hash && name == other.name;
    }
};
template <class T>
constexpr TypeName name_of() {
    TypeName out{__PRETTY_FUNCTION__, 0xcbf29ce484222325ull};
    for (const char c : out.name) out.hash = (out.hash ^ static_cast<unsigned char>(c)) * 0x100000001b3ull;
    return out;
}
template <class T>
inline constexpr TypeName kNameOf = name_of<T>();

template <class T>
bool same(const void* a, const void* b) {
    return *static_cast<const T*>(a) == *static_cast<const T*>(b);
}

template <class T, class G>
Value read(const Value& given) {
    const auto& from = *static_cast<const G*>(given.get());
    if constexpr (std::is_reference_v<decltype(Cell<T>::of(from))>) {
        return Value(given, &Cell<T>::of(from));
    } else {
        // What it looks at lives as long as it does.
        struct Held {
            Value given;
            T value;
        };
        const auto held = std::make_shared<const Held>(Held{given, Cell<T>::of(from)});
        return Value(held, &held->value);
    }
}

/// A parameter of a node; one that has a cell is read from the given where no node results in it.
struct Input {
    TypeName type;
    bool has_cell = false;
    Value (*read)(const Value& given) = nullptr;
    bool (*same)(const void*, const void*) = nullptr;
};
template <class T, class G>
constexpr Input input() {
    if constexpr (requires(const G& given) { Cell<T>::of(given); })
        return {kNameOf<T>, true, &read<T, G>, &same<T>};
    else
        return {kNameOf<T>, false, nullptr, nullptr};
}

/// A node as its function's type tells it.
struct Node {
    TypeName result;
    std::span<const Input> inputs;
    Value (*run)(Progress&, const std::vector<Value>&) = nullptr;
    bool (*same)(const void*, const void*) = nullptr;  ///< none: results cannot be compared
};

template <class F>
struct Traits;
template <class R, class... A>
struct Traits<R (*)(A...)> {
    static constexpr bool kTellsProgress = (std::is_same_v<std::remove_cvref_t<A>, Progress> || ...);
    /// What it reads; how far it has come is told, not read.
    template <class G>
    static constexpr auto kInputs = [] {
        std::array<Input, sizeof...(A) - (kTellsProgress ? 1 : 0)> out;
        std::size_t at = 0;
        const auto add = [&]<class T>(std::type_identity<T>) {
            if constexpr (!std::is_same_v<T, Progress>) out[at++] = input<T, G>();
        };
        (add(std::type_identity<std::remove_cvref_t<A>>{}), ...);
        return out;
    }();

    template <auto F>
    static Value run(Progress& progress, const std::vector<Value>& inputs) {
        std::size_t next = 0;
        // Braces keep the order of the parameters.
        const std::tuple<A...> all{argument<A>(progress, inputs, next)...};
        return std::apply([](auto&&... a) { return std::make_shared<const R>(F(static_cast<A>(a)...)); },
                          all);
    }
    template <auto F, class G>
    static constexpr Node node() {
        if constexpr (std::equality_comparable<R>)
            return {kNameOf<R>, kInputs<G>, &run<F>, &same<R>};
        else
            return {kNameOf<R>, kInputs<G>, &run<F>, nullptr};
    }

  private:
    template <class P>
    static P argument(Progress& progress, const std::vector<Value>& inputs, std::size_t& next) {
        if constexpr (std::is_same_v<std::remove_cvref_t<P>, Progress>)
            return progress;
        else
            return *static_cast<const std::remove_cvref_t<P>*>(inputs[next++].get());
    }
};

/// The place of the node that gives a type; their number where none does.
constexpr std::size_t giver_of(std::span<const Node> nodes, TypeName type) {
    std::size_t at = 0;
    while (at < nodes.size() && nodes[at].result != type) ++at;
    return at;
}

/// The place of a type among inputs; their number where it is not there.
constexpr std::size_t place_of(std::span<const Input> inputs, TypeName type) {
    std::size_t at = 0;
    while (at < inputs.size() && inputs[at].type != type) ++at;
    return at;
}

/// The inputs that no node gives, each once, in the order in which they are first read.
template <std::size_t most>
struct Cells {
    std::array<Input, most> room;
    std::size_t count = 0;

    constexpr explicit Cells(std::span<const Node> nodes) {
        for (const auto& node : nodes) {
            for (const auto& input : node.inputs) {
                if (giver_of(nodes, input.type) == nodes.size() && place_of(all(), input.type) == count)
                    room[count++] = input;
            }
        }
    }
    [[nodiscard]] constexpr std::span<const Input> all() const { return std::span(room).first(count); }
};

/// Where a type stands: cells first. Past all of them for one that is neither read nor given.
constexpr std::size_t slot_of(std::span<const Input> cells, std::span<const Node> nodes, TypeName type) {
    const auto cell = place_of(cells, type);
    return cell < cells.size() ? cell : cell + giver_of(nodes, type);
}

/// The slots of all that the nodes read and give.
std::vector<Slot> slots_of(std::span<const Input> cells, std::span<const Node> nodes);

}  // namespace slate

/// The nodes of a slate, each after those that it reads; what no node gives is read from `G` by its Cell.
/// Give it a name of its own (`struct Sums : Graph<…> {}`), lest its functions stand in the names of all that
/// is made of it.
template <class G, auto... F>
struct Graph {
    using Given = G;
    static constexpr std::array<slate::Node, sizeof...(F)> nodes{
        slate::Traits<decltype(F)>::template node<F, G>()...};

    /// Whether every node stands after those that it reads: then there is no circle.
    static constexpr bool every_input_comes_first = [] {
        for (std::size_t n = 0; n < nodes.size(); ++n) {
            for (const auto& input : nodes[n].inputs) {
                const auto giver = slate::giver_of(nodes, input.type);
                if (giver < nodes.size() && giver >= n) return false;
            }
        }
        return true;
    }();
    /// Whether no two nodes give the same type, which would then name neither.
    static constexpr bool every_result_is_its_own = [] {
        for (std::size_t n = 0; n < nodes.size(); ++n) {
            if (slate::giver_of(nodes, nodes[n].result) != n) return false;
        }
        return true;
    }();
    static constexpr slate::Cells<(std::size_t{0} + ... +
                                   slate::Traits<decltype(F)>::template kInputs<G>.size())>
        cells{nodes};
    /// Whether what no node gives has a cell that it is read by.
    static constexpr bool every_cell_is_there = [] {
        for (const auto& cell : cells.all()) {
            if (!cell.has_cell) return false;
        }
        return true;
    }();

    template <class T>
    static consteval std::size_t slot() {
        return slate::slot_of(cells.all(), nodes, slate::kNameOf<T>);
    }
    static std::vector<slate::Slot> slots() { return slate::slots_of(cells.all(), nodes); }
};

/// Findings by type. What is laid down once stays as it is: several jobs, or a job and what is tried beside
/// it, can lie on one slate.
template <class G>
class Slate {
    static_assert(G::every_input_comes_first, "a node stands before one that it reads");
    static_assert(G::every_result_is_its_own, "two nodes give the same type");
    static_assert(G::every_cell_is_there, "a node reads what neither a node nor a cell gives");

  public:
    using Laid = std::shared_ptr<const slate::Laid>;

    explicit Slate(std::size_t deep = 8) : memory_(G::slots(), deep) {}

    Laid lay(std::shared_ptr<const typename G::Given> given, bool passing = false) {
        return memory_.lay(std::move(given), passing);
    }
    /// Works all of T out, and what they read: what was laid down, with them on it. Throws Cancelled.
    template <class... T>
    [[nodiscard]] Laid work_out(const Laid& laid, Progress& progress, unsigned threads,
                                std::vector<Ran>* ran = nullptr) {
        return memory_.work_out(*laid, {G::template slot<T>()...}, progress, threads, ran);
    }
    template <class T>
    Outcome<T> want(const Laid& laid, Progress& progress, unsigned threads = 1,
                    std::vector<Ran>* ran = nullptr) {
        constexpr auto kSlot = G::template slot<T>();
        return typed<T>(memory_.work_out(*laid, {kSlot}, progress, threads, ran)->known[kSlot]);
    }
    /// What lies there or the memo has of it, without working anything out.
    template <class T>
    Outcome<T> recall(const Laid& laid) {
        return typed<T>(memory_.recall(*laid, G::template slot<T>()));
    }

  private:
    template <class T>
    static Outcome<T> typed(const slate::Known& known) {
        return {std::static_pointer_cast<const T>(known.value), known.fault};
    }
    slate::Memory memory_;
};

}  // namespace jig
