using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// What turns alternating into direct voltage: an input that loads the supply and an output that gives a voltage while
/// the input has one. A short at the output folds it back.
/// </summary>
internal abstract partial class DirectSource : CompleteKind
{
    private protected const int Off = 0,
        On = 1,
        FoldedBack = 2;
    private const int Input = 0,
        Output = 1;

    private protected abstract (string A, string B) InputTerminals { get; }
    private protected abstract double OutputVolts(Device device);
    private protected abstract double InputVolts(Device device);
    private protected abstract double OutputOhms(Device device);
    private protected abstract double LimitAmps(Device device);
    private protected abstract double InputVa(Device device);
    public override (string Plus, string Minus)? DirectOutput => ("L+", "M");

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "folded back"];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [new(InputTerminals.A, InputTerminals.B, ElementRole.Load), new("M", "L+", ElementRole.Source)];
}
