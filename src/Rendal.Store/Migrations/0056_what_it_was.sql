-- A change keeps what was there before it, not what came: what holds now stands in its own table, and a first ledger of 50,000 customers
-- wrote each card twice. Null where it was added.
alter table changed_content rename column content to content_before;
alter table changed_content disable trigger version_stays;
update changed_content k set content_before = w.before
from (
    select n.book_id, n.change_id, n.subject,
        lag(n.content_before) over (partition by n.book_id, c.kind, n.subject order by n.change_id) before
    from changed_content n join content_change c on c.book_id = n.book_id and c.id = n.change_id) w
where w.book_id = k.book_id and w.change_id = k.change_id and w.subject = k.subject;
alter table changed_content enable trigger version_stays;

create or replace function note_content_change() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
declare
    of_book text := case when tg_table_name = 'book' then 't.id' else 't.book_id' end;
    subject text := coalesce((select string_agg(format('t.%I', k), ', ') from unnest(string_to_array(tg_argv[1], ',')) k), $q$''$q$);
    person bigint := nullif(current_setting('rendal.person', true), '')::bigint;
    changed text;
begin
    changed := case
        when tg_op = 'INSERT' then
            'select %1$s book_id, concat_ws('' '', %2$s) subject, null::jsonb before from after_it t'
        when tg_op = 'DELETE' then
            'select %1$s book_id, concat_ws('' '', %2$s) subject, to_jsonb(t) - $3 before from before_it t'
        when tg_argv[1] = '' then
            'select book_id, '''' subject, null::jsonb before from (
                select %1$s book_id, to_jsonb(t) - $3 c from after_it t except select %1$s, to_jsonb(t) - $3 from before_it t) c'
        else
            'select book_id, subject, b.c before
                from (select %1$s book_id, concat_ws('' '', %2$s) subject, to_jsonb(t) - $3 c from before_it t) b
                full join (select %1$s book_id, concat_ws('' '', %2$s) subject, to_jsonb(t) - $3 c from after_it t) a using (book_id, subject)
                where a.c is distinct from b.c'
        end;
    execute format(
        'with changed as (' || changed || '), made as (
            insert into content_change (book_id, kind, person_id) select distinct book_id, $1, $2 from changed returning book_id, id
        )
        insert into changed_content (book_id, change_id, subject, content_before)
        select m.book_id, m.id, changed.subject, changed.before from changed join made m using (book_id) where $4', of_book, subject)
        using tg_argv[0], person, string_to_array(tg_argv[2], ','), tg_argv[1] <> '';
    return null;
end $$;

-- A new row has its number by default, which costs no call of a function for each.
alter table customer alter version set default nextval('content_version');
alter table wording alter version set default nextval('content_version');
drop trigger customer_version on customer;
drop trigger wording_version on wording;
create trigger customer_version before update on customer for each row execute function count_content_version();
create trigger wording_version before update on wording for each row execute function count_content_version();
