using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;

namespace Fehler.Core.Upkeep;

/// <summary>A part that can be bought and fitted by itself.</summary>
/// <param name="Device">Tag of the device that it is, or is part of.</param>
/// <param name="Noun">What it is: "contactor", "coil".</param>
/// <param name="Rating">What has to be the same for it to fit: "3-pole, 25 A"; parts of one noun and rating are twins.</param>
public sealed record InstalledPart(string Device, string Noun, string Rating)
{
    /// <summary>Alike for every part that fits in its place.</summary>
    public string Name => Rating.Length > 0 ? $"{Noun}, {Rating}" : Noun;

    /// <summary>A coil that is changed in its device.</summary>
    public bool IsCoil => Noun.StartsWith(InstalledParts.Coil, StringComparison.Ordinal);
}

/// <summary>The parts of a circuit, by what stands on their plates: a device, and its coil where it has one.</summary>
public sealed class InstalledParts
{
    internal const string Coil = "coil of ";

    internal InstalledParts(Circuit circuit) => All = [.. circuit.Devices.Where(IsBought).SelectMany(Of)];

    /// <summary>Device by device.</summary>
    public ImmutableArray<InstalledPart> All { get; }

    private static bool IsBought(Device device) => !device.Kind.IsSupply && !device.Kind.IsStrip && Rating(device).Length > 0;

    private static IEnumerable<InstalledPart> Of(Device device)
    {
        var noun = device.Kind.ReplaceableUnit.ToString();
        var coil = device.Kind.CoilOf(device) is { } rated ? $"{rated.Volts} {(rated.IsDirect ? "DC" : "AC")}" : "";
        var rating = Rating(device);
        yield return new InstalledPart(device.Tag, noun, coil.Length > 0 ? $"{rating}, coil {coil}" : rating);
        if (coil.Length > 0 && device.Kind.RatingOf(device) is not null)
        {
            yield return new InstalledPart(device.Tag, Coil + noun, $"{rating}, {coil}");
        }
    }

    private static string Rating(Device device) =>
        device.Kind.DialOf(device) is { } dial
            ? $"{Rating(device, PlateGroup.Rating)}, {dial.Amps.Value.ToString("0.##", CultureInfo.InvariantCulture)} A on the dial".TrimStart(
                ',',
                ' '
            )
            : string.Join(", ", new[] { Rating(device, PlateGroup.Rating), Contacts(device) }.Where(t => t.Length > 0));

    private static string Rating(Device device, PlateGroup group) =>
        string.Join(", ", device.Kind.Parameters.Where(p => p.Group == group).Select(p => Shown(device, p)).Where(t => t.Length > 0));

    private static string Contacts(Device device) =>
        string.Join(", ", device.Kind.Parameters.OfType<ContactsSpec>().SelectMany(p => device[p]));

    private static string Shown(Device device, ParameterSpec parameter) =>
        parameter switch
        {
            NumberSpec { Name: "poles" } poles => $"{device[poles]:0}-pole",
            NumberSpec { Unit.Length: > 0 } number => $"{device[number].ToString("0.###", CultureInfo.InvariantCulture)} {number.Unit}",
            WordSpec word when device[word] is not ("yes" or "no" or "") => device[word],
            _ => "",
        };
}
