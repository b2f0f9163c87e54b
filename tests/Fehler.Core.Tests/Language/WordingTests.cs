using Fehler.Core.Devices;

namespace Fehler.Core.Tests.Language;

/// <summary>
/// The words of the two dialects: IEC 60050-441/-826 on one side, NEMA ICS and the North American code's on the other (from memory).
/// </summary>
public class WordingTests
{
    [Fact]
    public void A_term_becomes_a_word_when_it_is_known_who_reads_it()
    {
        Wording wording = $"Open the {Term.Isolator}; land the {Term.ProtectiveConductor}.";
        wording.In(Dialect.Iec).ShouldBe("Open the isolator; land the protective conductor.");
        wording.In(Dialect.American).ShouldBe("Open the disconnect; land the equipment grounding conductor.");
        wording.ToString().ShouldBe(wording.In(Dialect.Iec));
    }

    [Fact]
    public void Names_that_a_person_gave_are_never_translated()
    {
        var function = "Star contactor, earth side, lamp row";
        Wording wording = $"{Term.Lamp.Capital} of {function} is dark";
        wording.In(Dialect.American).ShouldBe("Light of Star contactor, earth side, lamp row is dark");
    }

    [Fact]
    public void The_article_goes_with_the_word()
    {
        Wording wording = $"It has {Term.EarthFault.WithArticle}. {Term.EarthFault.WithArticle.Capital} trips it.";
        wording.In(Dialect.Iec).ShouldBe("It has an earth fault. An earth fault trips it.");
        wording.In(Dialect.American).ShouldBe("It has a ground fault. A ground fault trips it.");
    }

    [Fact]
    public void A_wording_inside_a_wording_keeps_its_terms()
    {
        Wording title = $"Wire 4 has {Term.EarthFault.WithArticle}";
        Wording summary = $"{title}: {0.953:P0}, {1.5:0.00} A";
        summary.In(Dialect.American).ShouldBe("Wire 4 has a ground fault: 95 %, 1.50 A");
        Wording.Join("; ", [title, "or not"]).In(Dialect.American).ShouldBe("Wire 4 has a ground fault; or not");
    }

    [Fact]
    public void A_sign_of_the_private_use_area_that_somebody_typed_is_not_a_term()
    {
        Wording typed = "Motor \uE000\uE00C one";
        Wording within = $"Replace {"M1\uE010"} now";
        typed.In(Dialect.American).ShouldBe("Motor  one");
        within.In(Dialect.American).ShouldBe("Replace M1 now");
    }

    [Fact]
    public void Wordings_are_equal_when_they_say_the_same_in_every_dialect()
    {
        Wording a = $"Replace the {Term.Lamp}";
        Wording b = $"Replace the {Term.Lamp}";
        Wording plain = "Replace the lamp";
        a.ShouldBe(b);
        a.GetHashCode().ShouldBe(b.GetHashCode());
        a.ShouldNotBe(plain);
        plain.In(Dialect.American).ShouldBe("Replace the lamp");
        Wording.None.IsEmpty.ShouldBeTrue();
    }
}
