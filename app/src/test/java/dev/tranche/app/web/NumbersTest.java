package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

class NumbersTest {
    @Test
    void a_comma_is_a_point_and_what_is_no_number_is_told_with_one_that_would_be() {
        assertThat(Numbers.decimal("gap", " 2,5 ")).isEqualTo(2.5);
        assertThat(Numbers.whole("number of copies", "3.0")).isEqualTo(3);
        assertThatThrownBy(() -> Numbers.decimal("gap", "far"))
                .hasMessage("“far” is not a number for the gap; type one such as 12.5.");
        assertThatThrownBy(() -> Numbers.decimal("gap", " "))
                .hasMessage("The gap is empty; type a number such as 12.5.");
        assertThatThrownBy(() -> Numbers.whole("number of copies", "many"))
                .hasMessage("“many” is no whole number for the number of copies; type one such as 3.");
        assertThatThrownBy(() -> Numbers.whole("number of copies", "2.5"))
                .hasMessage("The number of copies needs a whole number, not “2.5”.");
    }
}
