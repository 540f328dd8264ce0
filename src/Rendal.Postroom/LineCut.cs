namespace Rendal.Postroom;

/// <summary>The line is to be cut, as a drill wants it.</summary>
internal sealed class LineCut : Exception;
