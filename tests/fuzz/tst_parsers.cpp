// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/fuzz/parsers.h"

#include <QtTest>
#include <random>

using namespace rollcall;

// Every parser on what it is meant for and on what that becomes when it is torn, repeated, exchanged and filled with
// what no one would type. ./check --fuzz does it for as long as is wished, led by which lines are reached.
class tst_Parsers : public QObject {
    Q_OBJECT

    static std::string altered(std::string text, const std::string& other, std::mt19937& chance) {
        static const std::vector<std::string> odd{"\"",
                                                  ",",
                                                  ";",
                                                  "\n",
                                                  "\r\n",
                                                  "\t",
                                                  " ",
                                                  "-",
                                                  "+",
                                                  "e",
                                                  ".",
                                                  "..",
                                                  "1e999",
                                                  "-0",
                                                  "nan",
                                                  "inf",
                                                  "0x10",
                                                  "99999999999999999999",
                                                  std::string(1, '\0'),
                                                  "\xff",
                                                  "\xc3\x28",
                                                  "\xed\xa0\x80",
                                                  "\xe2\x80\xae",
                                                  "=",
                                                  "(",
                                                  ")",
                                                  "[",
                                                  "{",
                                                  "\\",
                                                  "%n",
                                                  "..//",
                                                  std::string(3000, '9'),
                                                  std::string(200, '"')};
        const auto below = [&](std::size_t n) {
            return n == 0 ? 0 : std::uniform_int_distribution<std::size_t>(0, n - 1)(chance);
        };
        for (std::size_t times = 1 + below(4); times > 0; --times) {
            const std::size_t at = below(text.size() + 1);
            switch (below(5)) {
            case 0:
                text.insert(at, odd[below(odd.size())]);
                break;
            case 1:
                text.erase(at, 1 + below(6));
                break;
            case 2:
                if (at < text.size()) text[at] = static_cast<char>(below(256));
                break;
            case 3:
                text.insert(at, other.substr(below(other.size())));
                break;
            default:
                text += text.substr(at);
            }
            if (text.size() > 20000) text.resize(20000);
        }
        return text;
    }

private slots:
    void nothingBreaksThem_data() {
        QTest::addColumn<int>("parser");
        int i = 0;
        for (const fuzz::Parser& parser : fuzz::parsers()) QTest::newRow(parser.name) << i++;
    }
    void nothingBreaksThem() {
        QFETCH(int, parser);
        const fuzz::Parser& one = fuzz::parsers()[static_cast<std::size_t>(parser)];
        std::mt19937 chance(11);
        for (const std::string& seed : one.seeds) one.read(seed);
        one.read({});
        for (int i = 0; i < one.tries; ++i) {
            const std::string& seed = one.seeds[static_cast<std::size_t>(i) % one.seeds.size()];
            const std::string& other = one.seeds[static_cast<std::size_t>(i / 3) % one.seeds.size()];
            const std::string text = altered(seed, other, chance);
            try {
                one.read(text);
            } catch (const std::exception& trouble) {
                QFAIL(qPrintable(QStringLiteral("%1: %2").arg(
                    QString::fromUtf8(trouble.what()),
                    QString::fromLatin1(QByteArray::fromStdString(text).left(300).toPercentEncoding(" ,;=.-+")))));
            }
        }
    }
};

QTEST_APPLESS_MAIN(tst_Parsers)
#include "tst_parsers.moc"
