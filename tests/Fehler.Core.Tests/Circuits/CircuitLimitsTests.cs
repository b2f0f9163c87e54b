using System.Text.Json.Nodes;
using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;

namespace Fehler.Core.Tests.Circuits;

/// <summary>A circuit beyond what can be drawn, solved and diagnosed while a person waits is refused, and the limit is said.</summary>
public class CircuitLimitsTests
{
    [Fact]
    public void More_devices_than_fit_are_refused_with_the_limit() =>
        Refused(
            root =>
            {
                var devices = root["devices"]!.AsArray();
                var lamp = devices.First(d => d!["kind"]!.GetValue<string>() == "push-button")!;
                while (devices.Count <= CircuitLimits.Devices)
                {
                    var more = lamp.DeepClone();
                    more["tag"] = $"S{900 + devices.Count}";
                    devices.Add(more);
                }
            },
            "150"
        );

    [Fact]
    public void More_places_than_fit_are_refused_with_the_limit() =>
        Refused(
            root =>
            {
                var places = root["locations"]!.AsArray();
                while (places.Count <= CircuitLimits.Locations)
                {
                    var more = places[0]!.DeepClone();
                    more["id"] = $"place{places.Count}";
                    places.Add(more);
                }
            },
            "60"
        );

    [Fact]
    public void A_tag_title_or_note_that_is_too_long_is_refused_with_its_length()
    {
        Refused(root => root["title"] = new string('t', CircuitLimits.Text + 1), "201 characters; at most 200");
        Refused(root => root["tag"] = new string('t', CircuitLimits.Name + 1), "41 characters; at most 40");
        Refused(root => root["devices"]![1]!["tag"] = new string('Q', CircuitLimits.Name + 1), "41 characters; at most 40");
    }

    [Theory]
    [InlineData("Saw\0mill", "cannot be shown")]
    [InlineData("Saw\u001bmill", "cannot be shown")]
    public void Text_that_cannot_be_shown_or_stored_is_refused(string text, string says) =>
        CircuitLimits.Refuse(text, CircuitLimits.Text).ShouldNotBeNull().ShouldContain(says);

    [Theory]
    [InlineData(0xD83D)]
    [InlineData(0xDC00)]
    public void Half_a_character_can_be_neither_shown_nor_stored(int half)
    {
        CircuitLimits.Refuse($"{(char)half}Saw", CircuitLimits.Text).ShouldNotBeNull().ShouldContain("half a character");
        CircuitLimits.Refuse($"Saw{(char)half}", CircuitLimits.Text).ShouldNotBeNull().ShouldContain("half a character");
    }

    [Theory]
    [InlineData("Gang saw 2, infeed")]
    [InlineData("Säge \uD83E\uDE9A")]
    [InlineData("two\nlines\tand a tab")]
    [InlineData("")]
    public void Text_that_people_write_is_taken(string text) => CircuitLimits.Refuse(text, CircuitLimits.Text).ShouldBeNull();

    /// <summary>The limits hold several times the largest demo circuit, whose limits they are meant to leave alone.</summary>
    [Fact]
    public void What_is_within_the_limits_is_taken()
    {
        var json = JsonNode.Parse(CircuitFile.Write(Starters.LineToNeutral))!;
        json["title"] = new string('t', CircuitLimits.Text);
        CircuitAcceptance.Read(json.ToJsonString()).Circuit.Title.Length.ShouldBe(CircuitLimits.Text);
    }

    private static void Refused(Action<JsonNode> change, string says)
    {
        var root = JsonNode.Parse(CircuitFile.Write(Starters.LineToNeutral))!;
        change(root);
        Should.Throw<CircuitException>(() => CircuitAcceptance.Read(root.ToJsonString())).Message.ShouldContain(says);
    }
}
