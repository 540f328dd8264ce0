-- Who of a head office and its branches gets the statements, and what they list where that is set for the customer.
alter table customer add groups text not null default 'branches' check (groups in ('branches', 'head-office', 'both'));
alter table customer add form text check (form in ('open-items', 'brought-forward'));

-- The accounts whose items are on the statements of a parcel, with their names: of a head office, those of its branches.
alter table parcel add accounts jsonb not null default '[]';
update parcel set accounts = jsonb_build_array(jsonb_build_object('key', customer, 'name', name));
alter table parcel alter accounts drop default, add check (jsonb_array_length(accounts) > 0);

-- What a book has settled for all its statements, and what of it held for a round when its parcels were made up or released.
alter table book add age_by text not null default 'due' check (age_by in ('due', 'document'));
alter table book add credits_by_date boolean not null default false;
alter table book add form text not null default 'open-items' check (form in ('open-items', 'brought-forward'));
alter table book add settlement text check (settlement in ('none', 'reference', 'oldest'));
alter table round add rules jsonb;
update round r set rules = jsonb_build_object('ageing', jsonb_build_object('upperEdges', b.ageing_edges, 'by', 'due', 'creditsByDate', false), 'form', 'open-items') from book b where b.id = r.book_id;
update round set choice = choice || '{"form": "open-items"}' where not choice ? 'form';
alter table round alter rules set not null;
