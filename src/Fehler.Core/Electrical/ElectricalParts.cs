using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>What the physics adds to a compiled circuit.</summary>
public static class ElectricalParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>The healthy circuit as nodes and branches.</summary>
        public Network Network => compiled.Part(static c => Network.Of(c.Circuit));

        /// <summary>The same with one standard deviation more resistance in every winding and coil than the description leads to.</summary>
        internal Network MoreCopper =>
            compiled
                .Part(static c => new WithMoreCopper(
                    Network.Of(c.Circuit with { Devices = [.. c.Circuit.Devices.Select(d => d.Kind.WithMoreCopper(d))] })
                ))
                .Network;
    }

    private sealed record WithMoreCopper(Network Network) : IHoldsMemory
    {
        public long Bytes => Network.Bytes;
    }
}
