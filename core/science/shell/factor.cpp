#include "core/science/shell/factor.hpp"

#include <cholmod.h>
#include <algorithm>
#include <new>

// Of the OpenMP runtime that CHOLMOD brings with it, and of the BLAS under it.
extern "C" {
int omp_get_dynamic();
void omp_set_dynamic(int);
void openblas_set_num_threads(int);
}

namespace jig::shell_fe {
namespace {

/// CHOLMOD asks for four threads whatever the machine has, and waits for each at every block: on two cores
/// that costs a quarter of the time. While this stands the runtime gives it no more than there are.
class NoMoreThreadsThanCores {
  public:
    NoMoreThreadsThanCores() { omp_set_dynamic(1); }
    ~NoMoreThreadsThanCores() { omp_set_dynamic(before_); }
    NoMoreThreadsThanCores(const NoMoreThreadsThanCores&) = delete;
    NoMoreThreadsThanCores& operator=(const NoMoreThreadsThanCores&) = delete;

  private:
    int before_ = omp_get_dynamic();
};

}  // namespace

/// CHOLMOD's workspace and factor, freed together.
struct Factor::Inside {
    Inside() {
        // BLAS threads spin while they wait, at blocks far too small to part: beside what else is worked out
        // they took a quarter of a whole evaluation's time.
        openblas_set_num_threads(1);
        cholmod_start(&common_);
        common_.supernodal = CHOLMOD_SUPERNODAL;
        common_.print = 0;
        // What is not positive definite is said here, not on standard output.
        common_.error_handler = nullptr;
    }
    ~Inside() {
        cholmod_free_factor(&factor_, &common_);
        cholmod_finish(&common_);
    }
    Inside(const Inside&) = delete;
    Inside& operator=(const Inside&) = delete;

    /// False where the matrix is not positive definite. The elimination order comes from the graph of points,
    /// which is a sixth as large each way as the matrix.
    bool compute(Stiffness& K) {
        std::vector<int> order = ordered(K);
        cholmod_sparse A = view(K.rows, K.first, K.row);
        A.x = K.value.data();
        A.stype = -1;
        A.xtype = CHOLMOD_REAL;
        cholmod_free_factor(&factor_, &common_);
        common_.nmethods = 1;
        common_.method[0].ordering = CHOLMOD_GIVEN;
        common_.postorder = 1;
        factor_ = cholmod_analyze_p(&A, order.data(), nullptr, 0, &common_);
        return factor_ != nullptr && definite(K);
    }

    bool definite(Stiffness& K) {
        const NoMoreThreadsThanCores threads;
        cholmod_sparse A = view(K.rows, K.first, K.row);
        A.x = K.value.data();
        A.stype = -1;
        A.xtype = CHOLMOD_REAL;
        cholmod_factorize(&A, factor_, &common_);
        return common_.status == CHOLMOD_OK && factor_->minor == factor_->n;
    }

    /// A cheap estimate of the reciprocal condition.
    double evenness() { return cholmod_rcond(factor_, &common_); }

    Eigen::MatrixXd solve(const Eigen::MatrixXd& right) {
        cholmod_dense b{};
        b.nrow = b.d = static_cast<std::size_t>(right.rows());
        b.ncol = static_cast<std::size_t>(right.cols());
        b.nzmax = b.nrow * b.ncol;
        b.x = const_cast<double*>(right.data());  // CHOLMOD only reads it
        b.xtype = CHOLMOD_REAL;
        b.dtype = CHOLMOD_DOUBLE;
        cholmod_dense* x = cholmod_solve(CHOLMOD_A, factor_, &b, &common_);
        if (x == nullptr) throw std::bad_alloc();
        Eigen::MatrixXd out =
            Eigen::Map<const Eigen::MatrixXd>(static_cast<const double*>(x->x), right.rows(), right.cols());
        cholmod_free_dense(&x, &common_);
        return out;
    }

    static cholmod_sparse view(int rows, std::vector<int>& first, std::vector<int>& row) {
        cholmod_sparse A{};
        A.nrow = A.ncol = static_cast<std::size_t>(rows);
        A.nzmax = row.size();
        A.p = first.data();
        A.i = row.data();
        A.itype = CHOLMOD_INT;
        A.dtype = CHOLMOD_DOUBLE;
        A.sorted = A.packed = 1;
        return A;
    }

    std::vector<int> ordered(const Stiffness& K) {
        const auto points = K.neighbours_from.size() - 1;
        std::vector<int> first(1, 0), row;
        for (std::size_t i = 0; i < points; ++i) {
            row.push_back(static_cast<int>(i));
            for (auto n = K.neighbours_from[i]; n < K.neighbours_from[i + 1]; ++n)
                row.push_back(static_cast<int>(K.neighbour[n]));
            first.push_back(static_cast<int>(row.size()));
        }
        cholmod_sparse graph = view(static_cast<int>(points), first, row);
        graph.stype = -1;
        graph.xtype = CHOLMOD_PATTERN;
        // Both orders are cheap on so small a graph; CHOLMOD keeps the one with less to eliminate.
        common_.nmethods = 2;
        common_.method[0].ordering = CHOLMOD_AMD;
        common_.method[1].ordering = CHOLMOD_METIS;
        common_.postorder = 1;
        std::vector<int> of_points(points), out;
        cholmod_factor* plan = cholmod_analyze(&graph, &common_);
        if (plan != nullptr) {
            std::copy_n(static_cast<const int*>(plan->Perm), points, of_points.begin());
            cholmod_free_factor(&plan, &common_);
        }
        out.reserve(static_cast<std::size_t>(K.rows));
        for (const int i : of_points) {
            for (std::size_t k = 0; k < 6; ++k) {
                const int r = K.number[6 * static_cast<std::size_t>(i) + k];
                if (r >= 0) out.push_back(r);
            }
        }
        return out;
    }

    cholmod_common common_{};
    cholmod_factor* factor_ = nullptr;
};

Factor::Factor() : inside_(std::make_unique<Inside>()) {}
Factor::~Factor() = default;

bool Factor::compute(Stiffness& K) {
    return inside_->compute(K);
}

bool Factor::definite(Stiffness& K) {
    return inside_->definite(K);
}

double Factor::evenness() {
    return inside_->evenness();
}

Eigen::MatrixXd Factor::solve(const Eigen::MatrixXd& right) {
    return inside_->solve(right);
}

}  // namespace jig::shell_fe
