#include "base/colour.h"

#include <catch2/catch.hpp>

using namespace panoplon;

TEST_CASE("contrast is the ratio of luminances, from 1 to 21") {
    CHECK(contrast(0x000000, 0xffffff) == Approx(21));
    CHECK(contrast(0xffffff, 0x000000) == Approx(21));
    CHECK(contrast(0x7d8597, 0x7d8597) == 1);
    CHECK(contrast(0x767676, 0xffffff) == Approx(4.54).epsilon(0.002)); // a known grey of WCAG
}

TEST_CASE("distance is 0 of a colour to itself and 1 of black to white, to any eyes") {
    for (const Sight sight : all_sights) {
        CHECK(distance(0x3366aa, 0x3366aa, sight) == 0);
        CHECK(distance(0x000000, 0xffffff, sight) == Approx(1).epsilon(1e-3));
        CHECK(distance(0x102030, 0x405060, sight) == distance(0x405060, 0x102030, sight));
        CHECK(sight_words(sight) != nullptr);
    }
}

TEST_CASE("red and green of one lightness are near for those who see no red or no green") {
    constexpr Colour red = 0xc0504d, green = 0x7a7d2f;
    const double full = distance(red, green, Sight::full);
    CHECK(distance(red, green, Sight::no_green) < full * 0.6);
    CHECK(distance(red, green, Sight::no_red) < full * 0.6);
    constexpr Colour blue = 0x3b6fb5, teal = 0x2f8f7f;
    CHECK(distance(blue, teal, Sight::no_blue) < distance(blue, teal, Sight::full));
}

TEST_CASE("the colour proposed can be read on both grounds and told from all others") {
    const std::vector<Colour> others = {0x9c6c00, 0x6c6cd8, 0x309c84};
    for (const Colour wanted : {0xffe97au, 0x000000u, 0x9c6c08u, 0xffffffu}) {
        const auto found = nearest_clear(wanted, others);
        REQUIRE(found);
        CHECK(contrast(*found, light_ground) >= least_contrast);
        CHECK(contrast(*found, dark_ground) >= least_contrast);
        for (const Colour other : others)
            for (const Sight sight : all_sights)
                CHECK(distance(*found, other, sight) >= least_distance);
    }
    CHECK(colour_text(0x0a0b0c) == "#0a0b0c");
}

TEST_CASE("a ground is proposed on which a colour can be read, whatever both are") {
    for (const Colour colour : {0xffe97au, 0x000000u, 0x777777u, 0xffffffu, 0x3366aau})
        for (const Colour wanted : {0xb09030u, 0x777777u, 0x000000u, 0xffffffu}) {
            const Colour ground = nearest_ground(wanted, colour);
            CHECK(contrast(colour, ground) >= least_contrast_of_text);
            CHECK((contrast(colour, wanted) < least_contrast_of_text ||
                   distance(ground, wanted, Sight::full) < 0.03));
        }
}

TEST_CASE("lines on a light ground take the darker of a colour and its own ground") {
    CHECK(line_colour({0xf4ecd8, 0x4a4a9c}) == 0x4a4a9c);
    CHECK(line_colour({0x4a4a9c, 0xf4ecd8}) == 0x4a4a9c);
    CHECK(line_colour({0xf4ecd8, std::nullopt}) == 0xf4ecd8);
}
