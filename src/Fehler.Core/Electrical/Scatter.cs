using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>Draws what differs from panel to panel; the same seed draws the same panel.</summary>
public sealed class Scatter(int seed)
{
    private readonly Random _chance = new(seed);

    /// <summary>Normally distributed, mean 0 and standard deviation 1, within three of them (Box and Muller 1958).</summary>
    public double Normal() =>
        Math.Clamp(Math.Sqrt(-2 * Math.Log(1 - _chance.NextDouble())) * Math.Cos(2 * Math.PI * _chance.NextDouble()), -3, 3);

    /// <summary>A factor about 1, as often above as below.</summary>
    /// <param name="deviation">One standard deviation as a factor.</param>
    public double Factor(double deviation) => Math.Exp(Math.Log(deviation) * Normal());

    /// <summary>The device with a number of it multiplied, within the bounds that the number has.</summary>
    internal Device Multiplied(Device device, NumberSpec spec, double deviation) =>
        device[spec] == 0 ? device : device.With(spec.Name, Math.Clamp(device[spec] * Factor(deviation), spec.Minimum, spec.Maximum));
}
