using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <summary>What hand-operated devices with main poles have in common.</summary>
internal abstract partial class SwitchingDevice : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class SwitchPlate
    {
        public static readonly NumberSpec Poles = ParameterSpec.Number("poles", "Number of poles", "", 3, 1, 4);
        public static readonly NumberSpec RatedAmps = ParameterSpec.Number("ratedAmps", "Rated current", "A", 25, 0.1, 1600);
    }

    public override ImmutableArray<ParameterSpec> Parameters => [SwitchPlate.Poles, SwitchPlate.RatedAmps];

    /// <summary>What its poles are for: an isolator carries, a breaker lets the start pass as well.</summary>
    private protected virtual Duty Duty => Duty.Carries;

    public override PoleRating? RatingOf(Device device) =>
        Elements(device).FirstOrDefault(e => e.Role == ElementRole.Pole) is { } first
            ? new(new Amps(device[SwitchPlate.RatedAmps]), first, Duty)
            : null;

    public override double MadeOhms(Device device, Element element) =>
        element.Role == ElementRole.Pole ? IElectrical.PoleOhms(device[SwitchPlate.RatedAmps]) : base.MadeOhms(device, element);

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [.. Enumerable.Range(0, (int)device[SwitchPlate.Poles]).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Pole))];

    public override int InitialPosition(Device device) => 1;
}
