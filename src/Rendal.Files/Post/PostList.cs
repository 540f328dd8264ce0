namespace Rendal.Files.Post;

/// <summary>A letter as it stands on the list.</summary>
/// <param name="Piece">The letter.</param>
/// <param name="Pages">How many pages it has.</param>
/// <param name="Sheets">How many sheets of paper that is.</param>
public sealed record PostListLine(PostPiece Piece, int Pages, int Sheets);

/// <summary>The list of what is in a bundle for the post.</summary>
/// <param name="Title">What stands on top.</param>
/// <param name="Lines">The letters in their order.</param>
public sealed record PostList(string Title, IReadOnlyList<PostListLine> Lines);
