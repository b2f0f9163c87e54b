using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;

namespace Fehler.Core.Tests.Devices;

public class DeviceKindTests
{
    [Fact]
    public void Every_kind_that_is_drawn_has_its_symbol_in_the_client()
    {
        var symbols = Path.Combine(Root(), "src", "client", "src", "symbols");
        foreach (var kind in DeviceKinds.All.Where(k => !k.IsStrip && k is not Supply))
        {
            File.Exists(Path.Combine(symbols, $"{kind.Id}.vue")).ShouldBeTrue($"{kind.Id} has no symbol");
        }
    }

    /// <summary>EN 50005 (from memory): last digits 1-2 open, 3-4 close.</summary>
    [Theory]
    [InlineData("13-14", ElementRole.NormallyOpen)]
    [InlineData("21-22", ElementRole.NormallyClosed)]
    [InlineData("53-54", ElementRole.NormallyOpen)]
    public void Terminal_numbers_say_what_a_contact_does(string contact, ElementRole role)
    {
        var kind = DeviceKinds.Get("contactor");
        var device = kind.WithDefaults(
            new Device(
                "KM1",
                kind,
                "panel",
                ImmutableSortedDictionary<string, ParameterValue>.Empty.Add("contacts", ParameterValue.FromWords([contact]))
            )
        );
        kind.Elements(device).ShouldContain(e => e.Name == contact && e.Role == role);
    }

    internal static string Root()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Fehler.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}
