// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <stdexcept>
#include <string>
#include <utility>
#include <variant>

namespace rollcall {

/// What kind of thing went wrong; decides the exit code of rollcallctl and the wording in the window.
enum class ErrorKind {
    argument, ///< an argument, a field or a name that is not understood
    range,    ///< a value outside the range in which the rule is valid
    input,    ///< a file that cannot be read as what it should be
    table,    ///< a reference table of Rollcall's own is damaged
    exists,   ///< a file that must not be overwritten is there already
    locked,   ///< the logbook is open elsewhere
    disk,     ///< the file system refused
    damaged,  ///< the logbook's content contradicts itself
    refused   ///< a rule of the record forbids the action
};

/// An error as a value: its kind, where it is (file and line, option, field) and the fact itself.
struct Error {
    ErrorKind kind = ErrorKind::argument;
    std::string place;
    std::string text;

    /// "place: text", or the text alone where the place is empty.
    std::string message() const { return place.empty() ? text : place + ": " + text; }
};

/// Either a value or an Error. GCC 12 has no std::expected; this is the part of it that Rollcall needs.
template<class T>
class [[nodiscard]] Result {
public:
    Result(T value) : m_content(std::in_place_index<0>, std::move(value)) {}
    Result(Error error) : m_content(std::in_place_index<1>, std::move(error)) {}

    explicit operator bool() const { return m_content.index() == 0; }
    bool ok() const { return m_content.index() == 0; }

    const T& value() const& {
        requireValue();
        return std::get<0>(m_content);
    }
    T& value() & {
        requireValue();
        return std::get<0>(m_content);
    }
    // By value: a range-for over the answer of a call must not walk over what has gone.
    T value() && {
        requireValue();
        return std::get<0>(std::move(m_content));
    }
    const T& operator*() const& { return value(); }
    const T* operator->() const { return &value(); }

    const Error& error() const { return std::get<1>(m_content); }

private:
    // Asking a failed result for its value is a mistake in the program, never an answer to the user.
    void requireValue() const {
        if (!ok()) throw std::logic_error(error().message());
    }
    std::variant<T, Error> m_content;
};

/// For actions that give nothing back but may fail.
struct Done {};

} // namespace rollcall
