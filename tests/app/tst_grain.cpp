// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/count_page.h"
#include "app/grain/grain_bench.h"
#include "app/grain/rate_page.h"
#include "tests/support/window_driver.h"

#include <cmath>
#include <QBuffer>
#include <QClipboard>
#include <QImageWriter>

using namespace rollcall;
using fixtures::WindowDriver;

namespace {

constexpr int photoWidth = 720;
constexpr int photoHeight = 420;
constexpr double scale = 900; // G 9 is 12.7 pixels

QImage fracture(double g) {
    return imageOf(fractureTexture(g, scale, photoWidth, photoHeight, 5).value().picture);
}

QByteArray encoded(const QImage& image, const char* format, QImageIOHandler::Transformations turned = {}) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    QImageWriter writer(&buffer, format);
    writer.setTransformation(turned);
    if (!writer.write(image)) qFatal("no %s written", format);
    return bytes;
}

} // namespace

class tst_Grain : public QObject {
    Q_OBJECT

    static void open(WindowDriver& d) {
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F12);
        QCOMPARE(d.window().place(), QStringLiteral("grain-bench"));
    }
    // Everything away from the interface thread has come back.
    static void rest(WindowDriver& d) {
        (void)QTest::qWaitFor([&] { return d.grain().photos().idle() && d.document().pending() == 0; }, 20000);
        d.settle();
    }
    static void take(WindowDriver& d, const QString& name, const QByteArray& bytes) {
        d.drop(d.writeFile(name, bytes));
        rest(d);
    }
    static void typeScale(WindowDriver& d, const QString& value) {
        d.run("grain.scale");
        d.type("2");
        d.fill("scale", value);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        rest(d);
    }
    static void countLine(WindowDriver& d) {
        d.press(Qt::Key_Return);
        rest(d);
        d.press(Qt::Key_Return);
        rest(d);
    }
    static const FracturePhoto& photo(WindowDriver& d) { return d.document().batch().blades[0].fractures.at(0); }

private slots:
    void init() { QSettings().clear(); }

    // A photo that is being opened reaches the record though the window is drawn anew meanwhile.
    void aPhotoInTheMomentOfAnotherLook() {
        WindowDriver d;
        open(d);
        QImage image(1500, 1200, QImage::Format_RGB32);
        image.fill(Qt::gray);
        QByteArray bytes;
        QBuffer buffer(&bytes);
        QVERIFY(buffer.open(QIODevice::WriteOnly) && image.save(&buffer, "PNG"));
        d.grain().takeFile(d.writeFile("slow.png", bytes));
        Look look = d.window().look();
        look.palette = Palette::darkOne();
        d.window().setLook(look); // at once: the page that asked is gone
        QVERIFY(QTest::qWaitFor([&] { return !d.document().batch().blades[0].fractures.empty(); }, 10000));
        QCOMPARE(d.document().batch().blades[0].fractures[0].width, 1500);
    }

    // A photo falls on the window, gets its scale, five lines are counted, and the Proof gate has its answer.
    void droppedScaledCountedJudged() {
        WindowDriver d;
        open(d);
        QCOMPARE(d.word(), QStringLiteral("Not broken"));
        const QByteArray bytes = encoded(fracture(9), "png");
        take(d, "c-1.png", bytes);
        QCOMPARE(photo(d).width, photoWidth);
        QCOMPARE(d.act(), QStringLiteral("Set the scale"));
        typeScale(d, "900");
        QCOMPARE(*photo(d).px_per_mm, 900.0);
        for (int i = 0; i < 2; ++i) countLine(d);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        d.press(Qt::Key_F7); // no trial answers what the lines would
        QCOMPARE(d.act(), QStringLiteral("Count more lines"));
        d.press(Qt::Key_Return);
        QCOMPARE(d.window().place(), QStringLiteral("grain-bench"));
        for (int i = 0; i < 3; ++i) countLine(d);
        QCOMPARE(photo(d).lines.size(), std::size_t(5));
        QCOMPARE(d.word(), QStringLiteral("Fine"));
        QVERIFY2(std::abs(d.column().numbers.at(0).value.toDouble() - 9) <= 0.5,
                 qPrintable(d.column().numbers.at(0).value));
        d.press(Qt::Key_F7);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY2(d.reasons().contains("fine enough, 8 is asked"), qPrintable(d.reasons()));
        // More is asked than is known: no Pass any more.
        d.press(Qt::Key_F12);
        d.run("grain.least");
        d.fill("least", "9.5");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.word() == QStringLiteral("Borderline") || d.word() == QStringLiteral("Coarse"));
        // Closed and opened again: all is there, the photo as it was given.
        d.restart();
        QCOMPARE(photo(d).lines.size(), std::size_t(5));
        QByteArray kept;
        d.document().perform([&, sha = photo(d).sha256](Logbook& logbook) -> Result<Done> {
            kept = logbook.fileOf(sha).value();
            return Done{};
        });
        d.settle();
        QCOMPARE(kept, bytes);
    }
    // Suggestions are only that: taken away by key, added by a click, weighed, and the line dropped or counted.
    void suggestionsAreLookedAt() {
        WindowDriver d;
        open(d);
        take(d, "c-1.png", encoded(fracture(9), "png"));
        typeScale(d, "900");
        d.press(Qt::Key_Return);
        rest(d);
        const auto drafted = [&] { return d.column().detail.section(' ', 0, 0).toInt(); };
        const int suggested = drafted();
        QVERIFY(suggested > 20);
        QVERIFY(photo(d).lines.empty()); // nothing is counted unseen
        d.press(Qt::Key_Right);
        d.press(Qt::Key_Delete);
        QCOMPARE(drafted(), suggested - 1);
        d.press(Qt::Key_Space); // the next one is a triple point
        d.press(Qt::Key_Return);
        rest(d);
        QCOMPARE(photo(d).lines.at(0).count(), suggested - 1 + 0.5);
        // The second line lies over the first quarter of the photo's height; a click on its far left adds one there.
        d.press(Qt::Key_Return);
        rest(d);
        const int second = drafted();
        auto& page = d.grain().count();
        int added = 0;
        for (int y = 0; y < page.height() && added == 0; y += 6) {
            QTest::mouseClick(&page, Qt::LeftButton, {}, {40, y});
            added = drafted() - second;
        }
        QVERIFY(added == 1 || added == -1); // on the line: one more there, or the one there away
        d.press(Qt::Key_Escape);
        QCOMPARE(photo(d).lines.size(), std::size_t(1));
        QCOMPARE(d.act(), QStringLiteral("Lay line 2"));
        // A line of one's own is dragged, and struck out with a reason.
        QTest::mousePress(&page, Qt::LeftButton, {}, {100, 160});
        QTest::mouseMove(&page, {300, 260});
        QTest::mouseRelease(&page, Qt::LeftButton, {}, {500, 260});
        rest(d);
        d.press(Qt::Key_Return);
        rest(d);
        QCOMPARE(photo(d).lines.size(), std::size_t(2));
        QVERIFY(photo(d).lines[1].line.a.y != photo(d).lines[1].line.b.y);
        d.type("/");
        d.type("1");
        QVERIFY(photo(d).lines[1].struck && !photo(d).lines[0].struck);
    }
    // The photo fills the pane from side to side: clicks at both ends span its 720 pixels.
    void scaleByTwoClicks() {
        WindowDriver d;
        open(d);
        take(d, "wide.png", encoded(fracture(9).scaled(720, 120), "png"));
        d.press(Qt::Key_Return);
        d.type("1");
        auto& page = d.grain().count();
        constexpr int y = 90;
        QTest::mouseClick(&page, Qt::LeftButton, {}, {0, y});
        QTest::mouseClick(&page, Qt::LeftButton, {}, {page.width() - 1, y});
        d.fill("length", "0");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(!d.formMessage().isEmpty());
        d.fill("length", "0.8 mm");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        rest(d);
        QVERIFY2(std::abs(*photo(d).px_per_mm - 900) < 5, qPrintable(QString::number(*photo(d).px_per_mm)));
    }
    // Blind: whoever picks the side nearer to 9 rates it 9, twice.
    void ratedByComparison() {
        WindowDriver d;
        open(d);
        take(d, "c-1.png", encoded(fracture(9), "png"));
        typeScale(d, "900");
        d.press(Qt::Key_2);
        d.press(Qt::Key_Return);
        auto& rate = d.grain().rate();
        QVERIFY(rate.running());
        for (int i = 0; i < 8 && rate.running(); ++i) {
            const auto [left, right] = rate.shown();
            d.press(std::abs(left - 9) < std::abs(right - 9) ? Qt::Key_Left : Qt::Key_Right);
        }
        rest(d);
        QVERIFY(!rate.running());
        QCOMPARE(photo(d).ratings.size(), std::size_t(1));
        QCOMPARE(photo(d).ratings[0].first, 9.0);
        QCOMPARE(photo(d).ratings[0].second, 9.0);
        QCOMPARE(d.word(), QStringLiteral("Rated 9.0"));
    }
    // JPEG as the camera was held, TIFF; what is no picture is refused in words and stays out.
    void kindsOfPictures() {
        WindowDriver d;
        open(d);
        take(d, "turned.jpg", encoded(fracture(8), "jpg", QImageIOHandler::TransformationRotate90));
        QCOMPARE(photo(d).width, photoHeight);
        QCOMPARE(photo(d).height, photoWidth);
        take(d, "scan.tiff", encoded(fracture(8), "tiff"));
        QCOMPARE(d.document().batch().blades[0].fractures.size(), std::size_t(2));
        // The two at a glance; a click on the first takes it in hand again.
        auto& page = d.grain().count();
        QCOMPARE(page.photo()->name, std::string("scan.tiff"));
        QTest::mouseClick(&page, Qt::LeftButton, {}, {200, 16});
        QCOMPARE(page.photo()->name, std::string("turned.jpg"));
        take(d, "rubbish.png", "this is no picture");
        QVERIFY2(d.now().contains("no picture of a kind"), qPrintable(d.now()));
        take(d, "half.png", encoded(fracture(8), "png").left(2000));
        QVERIFY2(d.now().contains("damaged"), qPrintable(d.now()));
        QCOMPARE(d.document().batch().blades[0].fractures.size(), std::size_t(2));
        // One photo too many is struck out.
        d.type("/");
        d.type("1");
        QCOMPARE(d.document().batch().blades[0].fractures.size(), std::size_t(1));
    }
    void theCamerasFolder() {
        QTemporaryDir folder;
        WindowDriver d;
        open(d);
        d.run("grain.watch");
        d.fill("folder", folder.path());
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(fracture(8).save(folder.filePath("shot.png")));
        QTRY_COMPARE(d.document().batch().blades[0].fractures.size(), std::size_t(1));
        rest(d);
    }
    // Views: whole window, beside others, drawn fracture, zoom; the keys lead back.
    void viewsAndPages() {
        WindowDriver d;
        open(d);
        take(d, "c-1.png", encoded(fracture(9), "png"));
        typeScale(d, "900");
        auto& page = d.grain().count();
        const QImage before = page.grab().toImage();
        d.press(Qt::Key_PageUp);
        QVERIFY(page.grab().toImage() != before);
        d.press(Qt::Key_Home);
        rest(d);
        const QImage whole = page.grab().toImage();
        std::unique_ptr<QPointingDevice> screen(QTest::createTouchDevice()); // two fingers part: nearer
        const QPoint middle = page.rect().center();
        QTest::touchEvent(&page, screen.get()).press(0, middle - QPoint(20, 0)).press(1, middle + QPoint(20, 0));
        for (int apart = 30; apart <= 120; apart += 15)
            QTest::touchEvent(&page, screen.get())
                .move(0, middle - QPoint(apart, 0))
                .move(1, middle + QPoint(apart, 0));
        QTest::touchEvent(&page, screen.get()).release(0, middle).release(1, middle);
        d.settle();
        QVERIFY(page.grab().toImage() != whole);
        d.press(Qt::Key_Home);
        rest(d);
        QVERIFY(page.grab().toImage() == whole); // and no line was laid
        // The right button moves the photo: no menu comes between.
        QContextMenuEvent right(QContextMenuEvent::Mouse, middle, page.mapToGlobal(middle));
        QCoreApplication::sendEvent(&page, &right);
        QVERIFY(QApplication::activePopupWidget() == nullptr);
        d.type("*"); // the drawn fracture of rating 8 beside it
        rest(d);
        QVERIFY(page.grab().toImage() != before);
        d.run("grain.whole");
        QVERIFY(!d.window().findChild<VerdictColumn*>()->isVisible());
        d.press(Qt::Key_Escape);
        QVERIFY(d.window().findChild<VerdictColumn*>()->isVisible());
        d.press(Qt::Key_3);
        QCOMPARE(d.word(), QStringLiteral("Too few"));
        d.press(Qt::Key_Return);
        QVERIFY(d.now().contains("no table"));
        d.type("*");
        QVERIFY(d.column().caption.contains("oven"));
    }
};

QTEST_MAIN(tst_Grain)
#include "tst_grain.moc"
