// A slate of findings: free functions whose parameter lists are all that they read, and so their memo's keys.
//
//     struct Sum { int value; bool operator==(const Sum&) const = default; };
//     Sum add(const Left&, const Right&);              // a node; Left and Right are cells or other nodes
//     using Sums = Graph<Given, &add, &twice>;         // a node stands after those that it reads
//     Slate<Sums> slate;
//     const auto laid = slate.lay(std::make_shared<const Given>(...));
//     slate.want<Sum>(laid, progress).value;           // worked out, or from the memo
//
// It knows nothing of moulds.
#pragma once

#include <concepts>
#include <cstdint>
#include <deque>
#include <memory>
#include <mutex>
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

template <class... T>
struct Types {
    static constexpr std::size_t size = sizeof...(T);
};

template <class T, class... L>
constexpr std::size_t index_in(Types<L...>) {
    std::size_t at = 0;
    static_cast<void>(((std::is_same_v<T, L> ? true : (++at, false)) || ...));
    return at;
}
template <class T, class... L>
constexpr bool is_in(Types<L...>) {
    return (std::is_same_v<T, L> || ...);
}

template <class L, class T>
struct Add;
template <class... L, class T>
struct Add<Types<L...>, T> {
    using type = std::conditional_t<is_in<T>(Types<L...>{}), Types<L...>, Types<L..., T>>;
};

/// What a node gives and reads.
template <class F>
struct Traits;
template <class R, class... A>
struct Traits<R (*)(A...)> {
    using Result = R;
    using Reads = Types<std::remove_cvref_t<A>...>;
    template <auto F>
    static Value run(Progress& progress, const std::vector<Value>& inputs) {
        std::size_t next = 0;
        // Braces keep the order of the parameters.
        const std::tuple<A...> all{argument<A>(progress, inputs, next)...};
        return std::apply([](auto&&... a) { return std::make_shared<const R>(F(static_cast<A>(a)...)); },
                          all);
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

template <class Cells, class Results, class Reads>
struct AddCells;
template <class Cells, class Results>
struct AddCells<Cells, Results, Types<>> {
    using type = Cells;
};
template <class Cells, class Results, class T, class... Rest>
struct AddCells<Cells, Results, Types<T, Rest...>> {
    static constexpr bool cell = !is_in<T>(Results{}) && !std::is_same_v<T, Progress>;
    using type =
        typename AddCells<typename std::conditional_t<cell, Add<Cells, T>, std::type_identity<Cells>>::type,
                          Results, Types<Rest...>>::type;
};

template <class Cells, class Results, class... Nodes>
struct CellsOf {
    using type = Cells;
};
template <class Cells, class Results, class N, class... Rest>
struct CellsOf<Cells, Results, N, Rest...> {
    using type =
        typename CellsOf<typename AddCells<Cells, Results, typename N::Reads>::type, Results, Rest...>::type;
};

template <class T>
bool same(const void* a, const void* b) {
    return *static_cast<const T*>(a) == *static_cast<const T*>(b);
}

}  // namespace slate

/// The nodes of a slate, each after those that it reads; what no node gives is read from `G` by its Cell.
template <class G, auto... F>
struct Graph {
    using Given = G;
    using Results = slate::Types<typename slate::Traits<decltype(F)>::Result...>;
    using Cells = typename slate::CellsOf<slate::Types<>, Results, slate::Traits<decltype(F)>...>::type;

    template <class... T>
    static constexpr bool reads_before(std::size_t node, slate::Types<T...>) {
        return ((!slate::is_in<T>(Results{}) || slate::index_in<T>(Results{}) < node) && ...);
    }

    /// Whether every node stands after those that it reads: then there is no circle.
    static constexpr bool every_input_comes_first = [] {
        std::size_t at = 0;
        return (reads_before(at++, typename slate::Traits<decltype(F)>::Reads{}) && ...);
    }();
    /// Whether no two nodes give the same type, which would then name neither.
    static constexpr bool every_result_is_its_own = [] {
        std::size_t at = 0;
        return ((slate::index_in<typename slate::Traits<decltype(F)>::Result>(Results{}) == at++) && ...);
    }();

    /// Where a type stands: cells first.
    template <class T>
    static constexpr std::size_t slot() {
        if constexpr (slate::is_in<T>(Cells{}))
            return slate::index_in<T>(Cells{});
        else
            return Cells::size + slate::index_in<T>(Results{});
    }
    static std::vector<slate::Slot> slots() {
        std::vector<slate::Slot> out;
        add_cells(out, Cells{});
        (add_node<F>(out), ...);
        return out;
    }

  private:
    template <class... T>
    static void add_cells(std::vector<slate::Slot>& out, slate::Types<T...>) {
        (out.push_back({{}, &read<T>, nullptr, &slate::same<T>}), ...);
    }
    template <class T>
    static slate::Value read(const slate::Value& given) {
        const auto& from = *static_cast<const G*>(given.get());
        if constexpr (std::is_reference_v<decltype(Cell<T>::of(from))>) {
            return slate::Value(given, &Cell<T>::of(from));
        } else {
            // What it looks at lives as long as it does.
            struct Held {
                slate::Value given;
                T value;
            };
            const auto held = std::make_shared<const Held>(Held{given, Cell<T>::of(from)});
            return slate::Value(held, &held->value);
        }
    }
    template <auto N>
    static void add_node(std::vector<slate::Slot>& out) {
        using Node = slate::Traits<decltype(N)>;
        using R = typename Node::Result;
        slate::Slot slot;
        add_inputs(slot, typename Node::Reads{});
        slot.run = &Node::template run<N>;
        if constexpr (std::equality_comparable<R>) slot.same = &slate::same<R>;
        out.push_back(std::move(slot));
    }
    template <class... T>
    static void add_inputs(slate::Slot& out, slate::Types<T...>) {
        (add_input<T>(out), ...);
    }
    template <class T>
    static void add_input(slate::Slot& out) {
        if constexpr (!std::is_same_v<T, Progress>) out.inputs.push_back(slot<T>());
    }
};

/// Findings by type. What is laid down once stays as it is: several jobs, or a job and what is tried beside
/// it, can lie on one slate.
template <class G>
class Slate {
    static_assert(G::every_input_comes_first, "a node stands before one that it reads");
    static_assert(G::every_result_is_its_own, "two nodes give the same type");

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
