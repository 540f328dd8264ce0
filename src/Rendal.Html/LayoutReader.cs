using Rendal.Core.Layouts;

namespace Rendal.Html;

/// <summary>Makes layouts ready, whose texts are HTML.</summary>
public static class LayoutReader
{
    /// <summary>The layout that is there before any was made.</summary>
    public static LayoutTemplate BuiltIn { get; } = Read(Layout.BuiltIn);

    /// <summary>Makes a layout ready, its texts and conditions taken apart.</summary>
    public static LayoutTemplate Read(Layout layout) => LayoutTemplate.Of(layout, WordingReader.Read, ParagraphReader.Of);
}
