using System.Net;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>The netlist is for checking Fehler with another program: every analysis, state and fault can be asked for.</summary>
public class NetlistApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    /// <summary>The cards that the analyses of a SPICE netlist have (common practice).</summary>
    [Theory]
    [InlineData("IN-101", "steps=S2:pressed", ".ac lin 1 50 50")]
    [InlineData("IN-101", "analysis=dc", ".op")]
    [InlineData("IN-101", "from=KM1:A1&to=KM1:A2", "Imeter")]
    [InlineData("IN-101", "analysis=ohms&from=KM1:13&to=KM1:14&held=KM1:in", "Imeter")]
    [InlineData("IN-101", "isolated=true&lifted=2.1", ".ac")]
    [InlineData("IN-101", "steps=S2:pressed,S2:released,wait:30&fault=F2/set-high,KM1/A1-A2-open", "ElementOpen")]
    public async Task Every_analysis_is_served(string tag, string query, string holds) =>
        (await _client.GetStringAsync(await Address(tag, query), Host.Cancellation)).ShouldContain(holds);

    /// <summary>Held by hand the contact is made: the netlist has one resistance more than at rest.</summary>
    [Fact]
    public async Task What_is_held_by_hand_is_in_the_netlist()
    {
        async Task<int> Branches(string query) =>
            (await _client.GetStringAsync(await Address("IN-101", query), Host.Cancellation)).Split('\n').Count(l => l.StartsWith('R'));

        var rest = await Branches("from=KM1:13&to=KM1:14");
        (await Branches("from=KM1:13&to=KM1:14&held=S2:pressed")).ShouldBe(rest + 1);
    }

    [Fact]
    public async Task Every_listed_fault_can_be_asked_for()
    {
        var id = await Host.CircuitAsync(_client, "IN-101");
        var list = await _client.GetStringAsync($"/api/circuits/{id}/faults", Host.Cancellation);
        var faults = JsonDocument.Parse(list).RootElement.EnumerateArray().ToList();
        faults.ShouldContain(f => f.GetProperty("isDifference").GetBoolean());
        foreach (var fault in faults.Where((_, i) => i % 25 == 0))
        {
            var (mode, variant) = (fault.GetProperty("id").GetString()!, fault.GetProperty("variant").GetString()!);
            var answer = await _client.GetAsync(
                $"/api/circuits/{id}/netlist?fault={Uri.EscapeDataString(mode)}&variant={Uri.EscapeDataString(variant)}",
                Host.Cancellation
            );
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, mode);
        }
    }

    /// <summary>An earth fault goes with the conductor that it is in: lifted off one end it is left on the other, off both on neither.</summary>
    [Fact]
    public async Task A_conductor_is_lifted_off_the_end_that_is_said()
    {
        async Task<string[]> Earthed(string lifted)
        {
            var text = await _client.GetStringAsync(
                await Address("IN-101", $"from=X1:3&to=INC:PE&fault=3.3/earth&variant=0.3%20ohm&lifted={lifted}"),
                Host.Cancellation
            );
            return [.. text.Split('\n').Where(l => l.StartsWith('R') && l.EndsWith(" 0.3", StringComparison.Ordinal))];
        }

        var whole = await Earthed("");
        whole.Length.ShouldBe(1);
        (await Earthed("3.3@S1:22")).Single().Split(' ')[1..].ShouldBe(whole[0].Split(' ')[1..]);
        (await Earthed("3.3@X1:3")).Single().Split(' ')[1..].ShouldNotBe(whole[0].Split(' ')[1..]);
        (await Earthed("3.3@X1:3,3.3@S1:22")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("fault=nonsense", "no fault mode 'nonsense'")]
    [InlineData("fault=a,b,c,d,e", "at most 4")]
    [InlineData("steps=S2", "write device:position")]
    [InlineData("steps=wait:long", "write the seconds")]
    [InlineData("steps=wait:99999999", "at most a day")]
    [InlineData("steps=S9:pressed", "no device S9")]
    [InlineData("analysis=noise", "write ac, dc or ohms")]
    [InlineData("from=KM1:A1&to=KM9:A2", "not a terminal")]
    [InlineData("analysis=ohms", "not a terminal")]
    [InlineData("held=KM1:in", "isolated=true")]
    [InlineData("lifted=99.9", "no conductor")]
    [InlineData("lifted=2.1@KM9:1", "does not end at KM9:1")]
    public async Task What_cannot_be_served_is_refused_in_one_sentence(string query, string says)
    {
        var answer = await _client.GetAsync(await Address("IN-101", query), Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync(Host.Cancellation)).Replace("\\u0027", "'", StringComparison.Ordinal).ShouldContain(says);
    }

    private async Task<string> Address(string tag, string query) =>
        $"/api/circuits/{await Host.CircuitAsync(_client, tag)}/netlist?{query}";
}
