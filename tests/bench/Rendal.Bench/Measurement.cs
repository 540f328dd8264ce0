namespace Rendal.Bench;

/// <summary>One line of the table.</summary>
/// <param name="What">What was measured.</param>
/// <param name="Rendal">Rendal's figure with its unit.</param>
/// <param name="Yardstick">The yardstick and its figure; why there is none where it could not be measured.</param>
/// <param name="Ratio">Rendal's figure over the yardstick's; null where there is no yardstick.</param>
/// <param name="Aim">What is aimed at, in words.</param>
internal sealed record Measurement(string What, string Rendal, string Yardstick, double? Ratio, string Aim);
