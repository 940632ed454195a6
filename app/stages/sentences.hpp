// The slip of each stage, one folder a stage.
#pragma once

#include "app/slip/sentence.hpp"

namespace jig::app {

/// Of a mould in pieces, the one that Edge to Heat are about.
Blank piece_word(const Job& job);

std::vector<Sentence> bag_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> brief_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> shape_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> split_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> plug_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> edge_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> shell_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> back_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> release_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> heat_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> part_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> run_sentences(const Job& job, const Shop& shop);
std::vector<Sentence> log_sentences(const Job& job, const Shop& shop);

}  // namespace jig::app
